import { describe, expect, it } from 'vitest';
import { bandPath, evenly, linear, path, roundUp } from './scale';

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
    ).toBe('M0.0 1.0L1.0 2.0M3.0 4.0');
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
    ).toBe('M0.0 0.7L1.0 5.5L1.0 4.5L0.0 0.0Z');
    expect(bandPath([[0, 1]], 0.5, same, same)).toBe('');
  });

  it('thins long series and moves their start', () => {
    const points = evenly(
      Array.from({ length: 2000 }, (_, i) => i),
      0.1,
      5,
      500,
    );
    expect(points.length).toBe(500);
    expect(points[0]).toEqual([-5, 0]);
    expect(evenly(null, 0.1)).toEqual([]);
  });

  it('rounds axes up', () => {
    expect(roundUp(8.2, 1, 9)).toBe(9);
    expect(roundUp(31, 10, 20)).toBe(40);
    expect(linear([0, 10], [100, 0])(5)).toBe(50);
  });
});
