import type { Schemas } from '../shared/api/client';

type Control = Schemas['LeverControl'];

/**
 * Effort, 0 to 1, for a pointer at a height on the pad: the top is none, the bottom is all; both ends have some room.
 */
export function effortAt(y: number, top: number, height: number): number {
  const share = (y - top) / height;
  return Math.max(0, Math.min(1, (share - 0.06) / 0.88));
}

const slowPerSecond = 0.35;
const pumpDownPerSecond = 3;

/** Effort after some seconds with keys held: arrows go slowly, space pumps. */
export function effortByKeys(effort: number, keys: ReadonlySet<string>, control: Control, seconds: number): number {
  let next = effort;
  if (control === 'Pump') {
    if (keys.has(' ')) next += pumpDownPerSecond * seconds;
    else if (keys.has('pumped')) next -= pumpDownPerSecond * seconds;
  }
  const speed = (control === 'HoldBack' ? 3 : 1) * slowPerSecond * seconds;
  if (keys.has('ArrowDown')) next += speed;
  if (keys.has('ArrowUp')) next -= speed;
  return Math.max(0, Math.min(1, next));
}
