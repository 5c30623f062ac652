import { expect, test } from 'vitest';
import type { LiveFrame } from '../live/live';
import { countdown, cuesOf, nothingHeard, type Heard } from './pullCues';

const frame = (reading: object, coach: object = {}, stage = 'Running') =>
  ({
    stage,
    reading: {
      seconds: 10,
      pressureBar: 6,
      targetBar: 6,
      phaseIndex: 1,
      dropsSeen: true,
      ...reading,
      coach: { secondsLeft: 20, advice: null, ...coach },
    },
  }) as unknown as LiveFrame;
const easing = [false, false, true];
const heard: Heard = { stage: 'Running', drops: true, phase: 1, seconds: 20, advice: null, leadAt: -1 };
const cues = (f: LiveFrame, before: Heard = heard) => cuesOf(f, before, 0.6, easing)[0];

test('inside the band there is silence, outside the hand is led up or down and not without end', () => {
  expect(cues(frame({}))).toEqual([]);
  expect(cues(frame({ pressureBar: 4.5 }))).toEqual(['press']);
  const [first, after] = cuesOf(frame({ pressureBar: 7.5 }), heard, 0.6, easing);
  expect(first).toEqual(['back']);
  expect(cuesOf(frame({ pressureBar: 7.5, seconds: 10.3 }), after, 0.6, easing)[0]).toEqual([]);
  expect(cuesOf(frame({ pressureBar: 7.5, seconds: 10.8 }), after, 0.6, easing)[0]).toEqual(['back']);
});

test('first drops, ease and stop each sound once', () => {
  expect(cues(frame({}), { ...heard, drops: false })).toEqual(['drops']);
  expect(cues(frame({ phaseIndex: 2 }))).toEqual(['ease']);
  const [stop, after] = cuesOf(frame({}, { secondsLeft: 0, advice: { kind: 'Stop' } }), heard, 0.6, easing);
  expect(stop).toEqual(['stop']);
  expect(cuesOf(frame({}, { secondsLeft: 0, advice: { kind: 'Stop' } }), after, 0.6, easing)[0]).toEqual([]);
});

test('the last three seconds are counted, each once', () => {
  let memory: Heard = heard;
  const said: string[] = [];
  for (let left = 4; left > 0; left -= 0.1) {
    const [now, next] = cuesOf(frame({}, { secondsLeft: left }), memory, 0.6, easing);
    memory = next;
    said.push(...now);
  }
  expect(said).toEqual(['soon', 'soon', 'soon']);
  expect(countdown(frame({}, { secondsLeft: 2.2 }))).toBe('Stop in 3');
  expect(countdown(frame({}, { secondsLeft: 8 }))).toBeNull();
});

test('danger is heard before all else, and a coach’s pressure leads instead of the plan’s', () => {
  expect(cues(frame({}, { advice: { kind: 'Danger', holdBar: 3 } }))[0]).toBe('danger');
  const channel = { advice: { kind: 'Channel', holdBar: 4 } };
  expect(cues(frame({}, channel))).toEqual(['trouble']);
  expect(cues(frame({}, channel), { ...heard, advice: 'Channel' })).toEqual(['back']);
});

test('nothing sounds before the lever has moved', () => {
  expect(cuesOf(frame({}, {}, 'Ready'), nothingHeard, 0.6, easing)[0]).toEqual([]);
  expect(cues(frame({}), nothingHeard)).toContain('begin');
});
