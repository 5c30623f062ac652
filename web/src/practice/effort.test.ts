import { expect, test } from 'vitest';
import { effortAt, effortByKeys } from './effort';

test('the lower on the pad the harder, with room at both ends', () => {
  expect(effortAt(100, 100, 400)).toBe(0);
  expect(effortAt(300, 100, 400)).toBeCloseTo(0.5);
  expect(effortAt(500, 100, 400)).toBe(1);
  expect(effortAt(900, 100, 400)).toBe(1);
});

test('arrows go slowly and stay where they are, space pumps', () => {
  expect(effortByKeys(0.5, new Set(['ArrowDown']), 'Press', 0.1)).toBeCloseTo(0.535);
  expect(effortByKeys(0.5, new Set(), 'Press', 1)).toBe(0.5);
  expect(effortByKeys(0.5, new Set([' ']), 'Press', 1)).toBe(0.5);
  expect(effortByKeys(0, new Set([' ', 'pumped']), 'Pump', 0.4)).toBe(1);
  expect(effortByKeys(1, new Set(['pumped']), 'Pump', 0.2)).toBeCloseTo(0.4);
  expect(effortByKeys(0.02, new Set(['ArrowUp']), 'Press', 1)).toBe(0);
});
