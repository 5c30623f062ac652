import { expect, test } from 'vitest';
import type { LiveFrame } from '../live/live';
import { Recording } from './Recording';

const frame = (seconds: number, phaseIndex: number, pressure: number[][], plan = [[seconds, 3, phaseIndex]]) =>
  ({ stage: 'Running', pressure, weight: [], flow: [], stroke: [], plan }) as unknown as LiveFrame;

test('what came before a chart was opened is in the recording', () => {
  const recording = new Recording(frame(1, 0, [[0.9, 2]]));
  recording.hear(frame(2, 0, [[1.9, 2.5]]));
  recording.hear(frame(3, 1, [[2.9, 3]]));
  expect(recording.pressure).toEqual([
    [0.9, 2],
    [1.9, 2.5],
    [2.9, 3],
  ]);
  expect([...recording.phaseBegan]).toEqual([
    [0, 1],
    [1, 3],
  ]);
  expect(recording.targets.length).toBe(3);
});

test('a page that comes later has the plan as it was played', () => {
  const past = [
    [0.1, 2.5, 0],
    [7, 2.5, 0],
    [7.1, 3, 1],
    [12, 8, 2],
  ];
  const recording = new Recording(frame(12, 2, [], past));
  expect(recording.targets).toEqual(past.map(([s, bar]) => [s, bar]));
  expect([...recording.phaseBegan]).toEqual([
    [0, 0.1],
    [1, 7.1],
    [2, 12],
  ]);
});
