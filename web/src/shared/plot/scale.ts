import { scaleLinear } from 'd3-scale';

export type Point = readonly [x: number, y: number];

/** A linear scale with ticks at round numbers; a plain sum and product where thousands of points go through it. */
export function linear(domain: [number, number], range: [number, number]) {
  const whole = scaleLinear().domain(domain).range(range);
  const slope = (range[1] - range[0]) / (domain[1] - domain[0]);
  if (!Number.isFinite(slope)) return whole;
  const at = (value: number) => range[0] + (value - domain[0]) * slope;
  return Object.assign(at, {
    ticks: (count?: number) => whole.ticks(count),
    invert: (pixel: number) => whole.invert(pixel),
    domain: () => whole.domain(),
  });
}

/** A coordinate to a tenth of a pixel; `toFixed` says the same and takes five times as long. */
export const tenth = (v: number) => Math.round(v * 10) / 10;

/** SVG path through points; gaps where a value is no number. */
export function path(points: Iterable<Point>, x: (v: number) => number, y: (v: number) => number): string {
  let d = '';
  let pen = false;
  // each by its index: taken apart as a list, thousands of points take twice as long
  for (const point of points) {
    if (!Number.isFinite(point[1])) {
      pen = false;
      continue;
    }
    d += `${pen ? 'L' : 'M'}${tenth(x(point[0]))} ${tenth(y(point[1]))}`;
    pen = true;
  }
  return d;
}

/** SVG path of a band between two edges over the same points. */
export function bandPath(
  points: readonly Point[],
  half: number,
  x: (v: number) => number,
  y: (v: number) => number,
): string {
  if (points.length < 2) return '';
  const up = points.map(([px, py]) => `${tenth(x(px))} ${tenth(y(py + half))}`);
  const down = points.map(([px, py]) => `${tenth(x(px))} ${tenth(y(Math.max(0, py - half)))}`).reverse();
  return `M${up.join('L')}L${down.join('L')}Z`;
}

interface Evenly {
  /** What lies at 0 along the bottom, in the unit of the step. */
  offset?: number;
  /** About as many points as this at most: one a pixel and a half if nothing else is asked for. */
  most?: number;
  /** From the unit of the values to the reader's. */
  factor?: number;
}

/** Points of an evenly spaced series, thinned. */
export function evenly(
  values: readonly number[] | null | undefined,
  step: number,
  { offset = 0, most = 700, factor = 1 }: Evenly = {},
): Point[] {
  if (!values) return [];
  const stride = Math.max(1, Math.floor(values.length / most));
  const points: Point[] = [];
  for (let i = 0; i < values.length; i += stride) points.push([i * step - offset, values[i]! * factor]);
  return points;
}

/** Index of the first point at or after a value of x, of points in its order. */
export function firstFrom(points: readonly Point[], x: number): number {
  let low = 0;
  let high = points.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (points[middle]![0] < x) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The points from a value of x on, as many as a screen can show: of each bucket the lowest and the highest in their
 * order, and the newest
 * of all. Buckets begin at multiples of their width, so that a line that moves along does not flicker.
 */
export function thinned(points: readonly Point[], from: number, bucket: number): Point[] {
  const bucketOf = (x: number) => Math.floor(x / bucket + 1e-6);
  const thin: Point[] = [];
  let index = firstFrom(points, from);
  while (index < points.length) {
    const number = bucketOf(points[index]![0]);
    let low = index;
    let high = index;
    let next = index + 1;
    for (; next < points.length && bucketOf(points[next]![0]) === number; next++) {
      if (points[next]![1] < points[low]![1]) low = next;
      if (points[next]![1] > points[high]![1]) high = next;
    }
    thin.push(points[Math.min(low, high)]!);
    if (low !== high) thin.push(points[Math.max(low, high)]!);
    index = next;
  }
  const newest = points.at(-1);
  if (newest && newest[0] >= from && thin.at(-1) !== newest) thin.push(newest);
  return thin;
}

/** A round upper end for an axis. */
export function roundUp(value: number, step: number, least: number): number {
  return Math.max(least, Math.ceil(value / step) * step);
}
