// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { coilPath } from './Coil';

test('the coil runs from plate to plate and is closer wound when it is pressed', () => {
  const numbers = (d: string) => d.match(/-?[\d.]+/g)!.map(Number);
  const long = numbers(coilPath(20, 420));
  const short = numbers(coilPath(300, 420));
  expect(long.slice(0, 2)).toEqual([40, 20]);
  expect(long.slice(-2)).toEqual([40, 420]);
  expect(short.slice(-2)).toEqual([40, 420]);
  expect(short.length).toBe(long.length);
});
