import { expect, test } from 'vitest';
import { freest } from './labels';

const level = (y: number, from = 0, to = 100) =>
  Array.from({ length: to - from + 1 }, (_, i) => [from + i, y] as const);

test('a label goes where no line passes', () => {
  expect(freest([10, 50, 90], [level(12), level(88)], 20, 60)).toBe(50);
});

test('what passes beside the label does not matter', () => {
  expect(freest([10, 90], [level(10, 0, 15), level(70)], 20, 60)).toBe(10);
});

test('where nothing passes the first height will do', () => {
  expect(freest([10, 90], [], 20, 60)).toBe(10);
});

test('a steep line passes all heights between its points', () => {
  const steep = [
    [30, 0],
    [32, 60],
  ] as const;
  expect(freest([20, 40, 80], [steep], 20, 60)).toBe(80);
});
