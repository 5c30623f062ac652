// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { cardPoints } from './LiveCard';

test('the card pairs each ml with the newest pressure of that moment', () => {
  const pressure = [
    [0, 1],
    [0.05, 2],
    [0.1, 3],
    [0.2, 5],
  ];
  expect(
    cardPoints(pressure, [
      [0.1, 4],
      [0.15, 5],
      [0.3, 9],
    ]),
  ).toEqual([
    [4, 3],
    [5, 3],
    [9, 5],
  ]);
  expect(cardPoints([], [[0.1, 4]])).toEqual([]);
});
