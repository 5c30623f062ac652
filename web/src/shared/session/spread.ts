import type { Schemas } from '../api/client';

type Course = Schemas['SessionView']['course'];

/** SVG path of the shade of what is not known about the group: one deviation to either side. */
export function spread(
  points: Course,
  t: (c: number) => number,
  x: (v: number) => number,
  y: (v: number) => number,
): string {
  if (points.length < 2) return '';
  const at = (p: Course[number], sign: number) =>
    `${x(p.seconds).toFixed(1)} ${y(t(p.groupC + sign * p.plusMinusK)).toFixed(1)}`;
  return `M${points.map((p) => at(p, 1)).join('L')}L${[...points]
    .reverse()
    .map((p) => at(p, -1))
    .join('L')}Z`;
}
