import type { Schemas } from '../shared/api/client';
import { quantity, type Quantity } from '../shared/plot/quantity';
import { evenly, roundUp, type Point } from '../shared/plot/scale';
import type { Units } from '../shared/units/units';

export const againsts = ['seconds', 'grams'] as const;
export type Against = (typeof againsts)[number];

/** What shots are aligned at. */
export const froms = {
  lever: 'lever moves',
  pressure: 'first pressure',
  drops: 'first drops',
  peak: 'peak',
} as const;
export type From = keyof typeof froms;

/** What can be drawn of shots over each other. */
export const shown = ['pressure', 'flow', 'grams', 'resistance'] as const satisfies readonly Quantity[];
export type Shown = (typeof shown)[number];

/** The letter that a shot carries in drawing and table. */
export const letterOf = (index: number) => String.fromCharCode(65 + index);

/** Shots are told apart by letter and dash; where there are more than dashes, by the letter. */
const dashes = [undefined, '9 4', '3 3', '14 4 3 4', '1.5 3.5'] as const;
export const dashOf = (index: number) => dashes[index % dashes.length];

/** Points of all lines of a quantity together; each has its share of them, up to what it can show. */
const mostPoints = 4000;
export const pointsFor = (shots: number) => Math.min(500, mostPoints / Math.max(1, shots));

const offsetOf = ({ moments: m }: Schemas['ShotView'], from: From) =>
  ({ lever: 0, pressure: m.firstPressure, drops: m.firstDrops, peak: m.peak })[from] ?? 0;

/** A quantity of a shot against seconds or grams, in the reader's unit. */
export function lineOf(
  shot: Schemas['ShotView'],
  what: Shown | 'plan',
  against: Against,
  from: From,
  units: Units,
  most = pointsFor(1),
): Point[] {
  const { curves, resistance } = shot;
  const offset = offsetOf(shot, from);
  const factor = what === 'pressure' || what === 'resistance' || what === 'plan' ? units.pressureFactor : 1;
  if (what === 'resistance')
    return resistance.map((p) => [against === 'grams' ? p.grams : p.seconds - offset, p.resistanceBarSPerMl * factor]);
  const values = {
    pressure: curves.pressureBar,
    flow: curves.flowGramsPerS,
    grams: curves.weightGrams,
    plan: curves.planBar,
  }[what];
  const line = evenly(values, curves.stepSeconds, { offset, most, factor });
  if (against === 'seconds') return line;
  const grams = evenly(curves.weightGrams, curves.stepSeconds, { most });
  return line.flatMap(([, y], i) => {
    const x = grams[i]?.[1];
    return x === undefined || !Number.isFinite(x) ? [] : [[Math.max(0, x), Math.max(0, y)] as const];
  });
}

/** Name and unit of an axis, and how its end is rounded. */
export function axisOf(what: Shown, units: Units) {
  const f = units.pressureFactor;
  const named = {
    pressure: { unit: units.pressureUnit, step: f, least: 9 * f },
    flow: { unit: 'g/s', step: 1, least: 2 },
    grams: { unit: 'g', step: 10, least: 20 },
    resistance: { unit: units.resistance(0).unit, step: f, least: 5 * f },
  }[what];
  return { ...named, label: `${quantity[what].label}, ${named.unit}` };
}

const highest = (line: readonly Point[]) => {
  let most = 0;
  for (const point of line) if (point[1] > most && Number.isFinite(point[1])) most = point[1];
  return most;
};

/** The upper end of an axis that holds lines, and plans with the half width of each one's band. */
export const axisEnd = (
  lines: readonly (readonly Point[])[],
  { step, least }: { step: number; least: number },
  plans: readonly (readonly Point[])[] = [],
  halves: readonly number[] = [],
) => roundUp(Math.max(...lines.map(highest), ...plans.map((plan, i) => highest(plan) + halves[i]!)), step, least);

/** Both ends of the axis along the bottom. */
export function alongEnds(lines: readonly (readonly Point[])[]): [number, number] {
  let [least, most] = [0, 10];
  for (const line of lines)
    for (const point of line) {
      least = Math.min(least, point[0]);
      most = Math.max(most, point[0]);
    }
  return [Math.floor(least / 5) * 5, roundUp(most, 5, 10)];
}

/** The name of the axis along the bottom. */
export const alongOf = (against: Against, from: From) =>
  against === 'grams' ? 'grams in the cup' : `seconds from ${from === 'lever' ? 'lever' : froms[from]}`;
