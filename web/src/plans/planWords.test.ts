import { describe, expect, it } from 'vitest';
import { endMovedTo, endNudged, endsIn, phaseAfter, withOneMore, type Phase } from './planWords';

const phase = (part: Partial<Phase>): Phase => ({ ...phaseAfter(undefined), ...part });

describe('a phase whose end is moved', () => {
  it('takes seconds, grams or a share from where it was put', () => {
    expect(endMovedTo(phase({ ending: 'Seconds' }), 8, 13.2, 4, 32).endsAt).toBe(5);
    expect(endMovedTo(phase({ ending: 'Grams' }), 8, 20, 11.9, 32).endsAt).toBe(12);
    expect(endMovedTo(phase({ ending: 'YieldShare' }), 8, 20, 16, 32).endsAt).toBeCloseTo(0.5);
  });

  it('never runs backwards or past the yield', () => {
    expect(endMovedTo(phase({ ending: 'Seconds' }), 8, 2, 0, 32).endsAt).toBe(0.5);
    expect(endMovedTo(phase({ ending: 'YieldShare' }), 8, 90, 60, 32).endsAt).toBe(1);
    expect(endNudged(phase({ ending: 'Grams', endsAt: 1 }), -1, 32).endsAt).toBe(0.5);
  });

  it('stays where it ends on an event', () => {
    const drops = phase({ ending: 'FirstDrops' });
    expect(endMovedTo(drops, 0, 20, 5, 32)).toBe(drops);
    expect(endNudged(drops, 1, 32)).toBe(drops);
  });
});

describe('words for a phase', () => {
  it('says how it ends', () => {
    expect(endsIn(phase({ ending: 'YieldShare', endsAt: 0.25 }), 32)).toBe('at 8 g');
    expect(endsIn(phase({ ending: 'Strokes', endsAt: 0.5 }), 32)).toBe('after half a pull');
    expect(endsIn(phase({ ending: 'FirstDrops' }), 32)).toBe('at first drops');
  });
});

describe('one more phase', () => {
  it('makes room before the end', () => {
    const phases = withOneMore([
      phase({ ending: 'YieldShare', endsAt: 0.4 }),
      phase({ ending: 'YieldShare', endsAt: 1 }),
    ]);
    expect(phases.map((p) => Number(p.endsAt.toFixed(3)))).toEqual([0.4, 0.7, 1]);
  });
});
