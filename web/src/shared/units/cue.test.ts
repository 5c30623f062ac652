// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { cueKept, cueSaid, withOwnPressure } from './cue';
import { makeUnits } from './units';

const metric = makeUnits('bar', 'degC', 'kgf');
const us = makeUnits('psi', 'degF', 'N');

test(
  'a cue says the pressure of its phase in the household\u2019s unit, and nothing that ' + 'the brewer wrote instead',
  () => {
    const phase = { cue: 'Hold {bar}', toBar: 2.5 };
    expect(cueSaid(phase, metric)).toBe('Hold 2.5 bar');
    expect(cueSaid({ ...phase, toBar: 8 }, metric)).toBe('Hold 8 bar');
    expect(cueSaid(phase, us)).toBe('Hold 36 psi');
    expect(cueSaid({ cue: 'Lean on it', toBar: 8 }, us)).toBe('Lean on it');
  },
);

test('a cue of old, in bar, is understood', () => {
  expect(withOwnPressure({ cue: 'Hold 2.5 bar', toBar: 2.5 })).toBe('Hold {bar}');
  expect(cueSaid({ cue: 'Ramp to 8 bar', toBar: 8 }, us)).toBe('Ramp to 116 psi');
});

test('what is typed is kept with the pressure free to move', () => {
  const phase = { cue: 'Hold {bar}', toBar: 8 };
  expect(cueKept('Hold 116 psi, softly', phase, us)).toBe('Hold {bar}, softly');
  expect(cueKept('Hold on', phase, us)).toBe('Hold on');
});
