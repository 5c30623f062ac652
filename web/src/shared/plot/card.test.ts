import { expect, test } from 'vitest';
import { cardPaths, strokesOf } from './card';

test('a card begins again where the lever was lifted', () => {
  const strokes = strokesOf([
    [0, 1],
    [10, 8],
    [20, 6],
    [0.2, 1.1],
    [12, 7],
  ]);
  expect(strokes.map((s) => s.length)).toEqual([3, 2]);
  expect(strokesOf([])).toEqual([]);
});

test('a wobble of less than a millilitre is no new stroke', () => {
  expect(
    strokesOf([
      [5, 3],
      [4.6, 3],
      [5.2, 3],
    ]),
  ).toHaveLength(1);
});

test('every stroke has its own area down to no pressure', () => {
  const same = (v: number) => v;
  const { line, area } = cardPaths(
    [
      [0, 2],
      [10, 8],
      [0, 1],
      [10, 7],
    ],
    same,
    same,
  );
  expect(line.match(/M/g)).toHaveLength(2);
  expect(area.match(/Z/g)).toHaveLength(2);
  expect(area).toContain('L10.0 0L0.0 0Z');
});
