import { expect, test } from 'vitest';
import { presentAfter, pullsAfter, type LiveFrame } from './live';

const frame = (part: Partial<LiveFrame>): LiveFrame =>
  ({ stage: 'Ready', pullId: 'a', notices: [], pulls: null, ...part }) as LiveFrame;
const hand = (id: string, devices: string[] = []) => ({
  id,
  machineId: 1,
  machineName: 'Pack lever',
  stage: 'Ready' as const,
  devices,
});

test('a frame of a pull that nobody knew adds it, and the same frame again changes nothing', () => {
  const once = pullsAfter([], frame({}));
  expect(once.map((p) => p.id)).toEqual(['a']);
  expect(pullsAfter(once, frame({}))).toBe(once);
});

test('two pulls keep their own stage and notices', () => {
  let pulls = pullsAfter([], frame({ pulls: [hand('a', ['gauge']), hand('b')] }));
  pulls = pullsAfter(pulls, frame({ pullId: 'b', stage: 'Running', notices: ['My scale went away.'] }));
  expect(pulls.map((p) => [p.id, p.stage, p.notices.length])).toEqual([
    ['a', 'Ready', 0],
    ['b', 'Running', 1],
  ]);
  // the list that comes now and then does not turn a stage back
  expect(pullsAfter(pulls, frame({ pulls: [hand('a', ['gauge']), hand('b')] }))).toBe(pulls);
  expect(pullsAfter(pulls, frame({ pulls: [hand('a', ['gauge', 'scale']), hand('b')] }))[0]!.devices).toEqual([
    'gauge',
    'scale',
  ]);
});

test('a pull that is over goes, and none is left when nothing is under way', () => {
  const pulls = pullsAfter([], frame({ pulls: [hand('a'), hand('b')] }));
  expect(pullsAfter(pulls, frame({ pullId: 'b', pulls: [hand('b')] })).map((p) => p.id)).toEqual(['b']);
  expect(pullsAfter(pulls, frame({ pullId: null, stage: 'Idle' }))).toEqual([]);
});

test('devices whose readings alone changed are the same list', () => {
  const gauge = { name: 'gauge', channels: ['Pressure' as const], silent: false };
  const once = presentAfter([], [{ ...gauge, latest: { Pressure: 1 } } as never]);
  expect(once).toEqual([gauge]);
  expect(presentAfter(once, [{ ...gauge, latest: { Pressure: 2 } } as never])).toBe(once);
  expect(presentAfter(once, [{ ...gauge, silent: true }])).not.toBe(once);
  expect(presentAfter(once, [])).toEqual([]);
});
