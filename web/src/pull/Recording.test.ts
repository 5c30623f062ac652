import { expect, test } from 'vitest';
import type { LiveFrame } from '../shell/live';
import { Recording } from './Recording';

const frame = (seconds: number, phaseIndex: number, pressure: number[][]) =>
  ({
    stage: 'Running',
    pressure,
    weight: [],
    flow: [],
    stroke: [],
    reading: { seconds, phaseIndex, targetBar: 3 },
  }) as unknown as LiveFrame;

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
    [0, 2],
    [1, 3],
  ]);
  expect(recording.targets.length).toBe(2);
});
