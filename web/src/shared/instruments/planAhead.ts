import type { Point } from '../plot/scale';

interface PlanPoint {
  seconds: number;
  bar: number;
  phase: number;
}

/**
 * The rest of the plan from now on: the course of the phases still to come, moved so that the phase that is due begins
 * where it really
 * began. Drawing only; what the plan wants now comes from the server.
 */
export function planAhead(
  course: readonly PlanPoint[],
  began: ReadonlyMap<number, number>,
  phase: number,
  now: number,
): Point[] {
  const first = course.find((p) => p.phase === phase);
  if (!first) return [];
  const shift = (began.get(phase) ?? now) - first.seconds;
  const ahead: Point[] = [];
  for (const p of course) {
    if (p.phase < phase) continue;
    const at = p.seconds + shift;
    if (p.phase === phase && at < now) continue;
    ahead.push([at, p.bar]);
  }
  // a phase that lasts longer than usual pushes what follows it along
  const late = ahead.length > 0 ? Math.max(0, now - ahead[0]![0]) : 0;
  return late > 0 ? ahead.map(([at, bar]) => [at + late, bar] as const) : ahead;
}
