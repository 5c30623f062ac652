import { expect, test, vi } from 'vitest';
import type { Schemas } from '../shared/api/client';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined });
const { cues } = await import('../shared/session/stepSound');

const session = {
  originAt: '2030-05-01T06:00:00Z',
  steps: [
    { key: 'on', state: 'Done', startSeconds: 0, seconds: 5 },
    { key: 'cloth-4', state: 'UnderWay', startSeconds: 100, seconds: 60 },
    { key: 'shot-4', state: 'Due', startSeconds: 200, seconds: 40 },
    { key: 'rinse', state: 'Skipped', startSeconds: 300, seconds: 45 },
  ],
} as unknown as Schemas['SessionView'];

test('a step sounds when it is due, one under way when it is over, the rest not', () => {
  const origin = Date.parse(session.originAt);
  expect(cues(session)).toEqual([
    { key: 'cloth-4 over', at: origin + 160_000, tones: 2 },
    { key: 'shot-4 due', at: origin + 200_000, tones: 1 },
  ]);
});
