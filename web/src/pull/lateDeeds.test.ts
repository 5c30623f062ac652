// @vitest-environment jsdom
import { beforeEach, expect, it } from 'vitest';
import { Problem } from '../shared/api/client';
import { LateDeeds } from './lateDeeds';

let now = 0;
beforeEach(() => {
  now = 1_000_000;
  sessionStorage.clear();
});
const made = (pull = 'p') => new LateDeeds(pull, sessionStorage, () => now);

it('keeps what is done in its order, and says how long ago it was', async () => {
  const late = made();
  late.add('begin');
  now += 1500;
  late.add('follow', 6.2);
  now += 500;
  const sent: unknown[] = [];
  await late.send((deeds) => Promise.resolve(sent.push(...deeds)));
  expect(sent).toEqual([
    { what: 'begin', bar: null, secondsAgo: 2 },
    { what: 'follow', bar: 6.2, secondsAgo: 0.5 },
  ]);
  expect(late.count()).toBe(0);
});

it('survives a reload, and another pull knows nothing of it', () => {
  made().add('drops');
  expect(made().count()).toBe(1);
  expect(made('another').count()).toBe(0);
});

it('keeps everything while the server is still away, and what was done meanwhile stays in line', async () => {
  const late = made();
  late.add('begin');
  await expect(late.send(() => Promise.reject(new Problem('away', 0)))).rejects.toThrow('away');
  late.add('stop');
  const sent: string[] = [];
  await late.send((deeds) => {
    late.add('blonding'); // while it is on its way
    return Promise.resolve(sent.push(...deeds.map((d) => d.what)));
  });
  expect(sent).toEqual(['begin', 'stop']);
  expect(late.count()).toBe(1);
});

it('lets go of what the server does not want', async () => {
  const late = made();
  late.add('stop');
  await expect(late.send(() => Promise.reject(new Problem('The pull has not begun.', 409)))).rejects.toThrow('begun');
  expect(late.count()).toBe(0);
});

it('tells how far the pull is by what was done meanwhile', () => {
  const late = made();
  expect(late.stageAfter('Ready')).toBe('Ready');
  late.add('begin');
  expect([late.stageAfter('Ready'), late.begunAtMs]).toEqual(['Running', now]);
  late.add('drops');
  expect(late.stageAfter('Running')).toBe('Running');
  late.add('stop');
  expect(late.stageAfter('Running')).toBe('Settling');
});
