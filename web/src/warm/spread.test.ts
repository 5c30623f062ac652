import { expect, test } from 'vitest';
import { spread } from '../shared/session/spread';

const same = (v: number) => v;

test('the shade runs out over the upper edge and back over the lower', () => {
  const points = [
    { seconds: 0, groupC: 50, plusMinusK: 2, boilerC: null },
    { seconds: 10, groupC: 60, plusMinusK: 3, boilerC: null },
  ];
  expect(spread(points, same, same, same)).toBe('M0.0 52.0L10.0 63.0L10.0 57.0L0.0 48.0Z');
  expect(spread(points.slice(1), same, same, same)).toBe('');
});
