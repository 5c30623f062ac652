import { describe, expect, it, test } from 'vitest';
import { bandPath, evenly, linear, path, roundUp, firstFrom, thinned } from './scale';

const same = (v: number) => v;

describe('plot kit', () => {
  it('draws a line and lifts the pen where a value is missing', () => {
    expect(
      path(
        [
          [0, 1],
          [1, 2],
          [2, NaN],
          [3, 4],
        ],
        same,
        same,
      ),
    ).toBe('M0 1L1 2M3 4');
  });

  it('closes a band that never goes below nothing', () => {
    expect(
      bandPath(
        [
          [0, 0.2],
          [1, 5],
        ],
        0.5,
        same,
        same,
      ),
    ).toBe('M0 0.7L1 5.5L1 4.5L0 0Z');
    expect(bandPath([[0, 1]], 0.5, same, same)).toBe('');
  });

  it('thins long series, moves their start and takes the reader\u2019s unit', () => {
    const points = evenly(
      Array.from({ length: 2000 }, (_, i) => i),
      0.1,
      { offset: 5, most: 500, factor: 10 },
    );
    expect(points.length).toBe(500);
    expect(points[0]).toEqual([-5, 0]);
    expect(points[1]![0]).toBeCloseTo(-4.6, 9);
    expect(points[1]![1]).toBe(40);
    expect(evenly(null, 0.1)).toEqual([]);
  });

  it('rounds axes up', () => {
    expect(roundUp(8.2, 1, 9)).toBe(9);
    expect(roundUp(31, 10, 20)).toBe(40);
    expect(linear([0, 10], [100, 0])(5)).toBe(50);
  });
});

test('the first point from a value on', () => {
  const points = [0, 1, 2, 2, 5].map((x) => [x, 0] as const);
  expect([-1, 0, 0.5, 2, 3, 5, 6].map((x) => firstFrom(points, x))).toEqual([0, 0, 1, 2, 4, 4, 5]);
  expect(firstFrom([], 3)).toBe(0);
});

test('thinned points keep every spike and the newest', () => {
  const points = Array.from({ length: 3000 }, (_, i) => [i * 0.02, i === 1503 ? 40 : Math.sin(i / 50)] as const);
  const thin = thinned(points, -Infinity, 0.1);
  expect(thin.length).toBeLessThanOrEqual(1201);
  expect(thin.length).toBeGreaterThan(500);
  expect(Math.max(...thin.map((p) => p[1]))).toBe(40);
  expect(thin.at(-1)).toBe(points.at(-1));
  expect(thin.every((p, i) => i === 0 || p[0] > thin[i - 1]![0])).toBe(true);
});

test('thinning is the same wherever the axis begins', () => {
  const points = Array.from({ length: 500 }, (_, i) => [i * 0.02, Math.sin(i)] as const);
  const whole = thinned(points, -Infinity, 0.1);
  // but for the bucket that the axis cuts
  expect(thinned(points, 4.03, 0.1).filter((p) => p[0] >= 4.1)).toEqual(whole.filter((p) => p[0] >= 4.1));
  expect(thinned(points, 4.03, 0.1).every((p) => p[0] >= 4.03)).toBe(true);
  expect(thinned([], 0, 0.1)).toEqual([]);
});
