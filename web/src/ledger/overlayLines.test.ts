import { describe, expect, it } from 'vitest';
import { alongEnds, axisEnd, pointsFor } from './overlayLines';

const bar = { step: 1, least: 9 };

describe('axes that several shots share', () => {
  it('hold the highest line, and a plan with its band', () => {
    const line = [[0, 4] as const, [5, 9.2] as const, [6, NaN] as const];
    expect(axisEnd([line], bar)).toBe(10);
    expect(axisEnd([line], bar, [[[0, 10.5]], []], [0.6, 3])).toBe(12);
    expect(axisEnd([], bar)).toBe(9);
  });

  it('hold every line along the bottom, from before the moment that they are aligned at', () => {
    expect(alongEnds([[[-3, 0]], [[41.5, 2]]])).toEqual([-5, 45]);
    expect(alongEnds([])).toEqual([0, 10]);
  });

  it('share their points among twenty shots', () => {
    expect(pointsFor(20)).toBe(200);
    expect(pointsFor(2)).toBe(500);
  });
});
