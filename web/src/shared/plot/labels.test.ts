import { expect, test } from 'vitest';
import { beside, freest, staggered } from './labels';

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

test('a line gives way to the labels that it would pass through', () => {
  expect(beside(0, 100, [])).toEqual([[0, 100]]);
  expect(beside(0, 100, [70, 30])).toEqual([
    [0, 20],
    [34, 60],
    [74, 100],
  ]);
});

test('between labels that touch there is no line', () => {
  expect(beside(0, 100, [30, 44])).toEqual([
    [0, 20],
    [48, 100],
  ]);
  expect(beside(0, 40, [34])).toEqual([
    [0, 24],
    [38, 40],
  ]);
});

test('labels that would overlap stand on lines of their own', () => {
  const near = [
    { from: 0, to: 60 },
    { from: 12, to: 50 },
    { from: 40, to: 80 },
    { from: 82, to: 120 },
  ];
  expect(staggered(near, 3)).toEqual([0, 1, 2, 0]);
  // and with no line left the one that is taken least far
  expect(staggered(near, 2)).toEqual([0, 1, 1, 0]);
});
