// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { lineRows, roundSteps, valueAt } from './rows';

describe('the numbers behind a chart', () => {
  it('has round steps over what the lines cover, and no more than fit', () => {
    expect(
      roundSteps([
        [
          [0.2, 1],
          [3.1, 1],
        ],
      ]),
    ).toEqual([0.5, 1, 1.5, 2, 2.5, 3]);
    for (const end of [1, 7, 44, 61, 180, 3000]) {
      const steps = roundSteps([
        [
          [0, 0],
          [end, 0],
        ],
      ]);
      expect(steps.length).toBeLessThanOrEqual(31);
      expect(steps.length).toBeGreaterThan(2);
    }
    expect(roundSteps([[]])).toEqual([]);
  });

  it('reads between points and nothing beyond them', () => {
    const line = [
      [1, 10],
      [3, 30],
      [3, 40],
      [5, Number.NaN],
    ] as const;
    expect(valueAt(line, 2)).toBeCloseTo(20);
    expect(valueAt(line, 1)).toBe(10);
    expect(valueAt(line, 0.5)).toBeNull();
    expect(valueAt(line, 4)).toBeNull();
    expect(valueAt(line, 6)).toBeNull();
  });

  it('says what a line does not reach with a dash', () => {
    const table = lineRows('s', 0, [
      {
        name: 'a',
        line: [
          [0, 0],
          [2, 4],
        ],
        digits: 1,
      },
      {
        name: 'b',
        line: [
          [1, 7],
          [2, 7],
        ],
        digits: 0,
      },
    ]);
    expect(table.head).toEqual(['s', 'a', 'b']);
    expect(table.rows()[0]).toEqual(['0', '0.0', '\u2013']);
    expect(table.rows().at(-1)).toEqual(['2', '4.0', '7']);
  });
});
