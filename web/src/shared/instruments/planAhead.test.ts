import { describe, expect, it } from 'vitest';
import { planAhead } from './planAhead';

const course = [
  { seconds: 0, bar: 0, phase: 0 },
  { seconds: 2, bar: 2.5, phase: 0 },
  { seconds: 7, bar: 2.5, phase: 1 },
  { seconds: 12, bar: 8, phase: 2 },
  { seconds: 20, bar: 5, phase: 2 },
];

describe('the plan still to come', () => {
  it('begins each phase where it really began', () => {
    const ahead = planAhead(
      course,
      new Map([
        [0, 0],
        [1, 10],
      ]),
      1,
      10,
    );
    expect(ahead[0]).toEqual([10, 2.5]);
    expect(ahead[1]).toEqual([15, 8]);
  });

  it('leaves out what is past', () => {
    const ahead = planAhead(course, new Map([[2, 12]]), 2, 14);
    expect(ahead).toEqual([[20, 5]]);
  });

  it('is pushed along by a phase that lasts', () => {
    const ahead = planAhead(course, new Map([[0, 0]]), 0, 15);
    expect(ahead[0]).toEqual([15, 2.5]);
    expect(ahead[1]![0]).toBe(20);
  });

  it('is nothing once the plan is done', () => {
    expect(planAhead(course, new Map(), 5, 40)).toEqual([]);
  });
});
