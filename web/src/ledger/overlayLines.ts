import type { Schemas } from '../shared/api/client';
import { quantity, type Quantity } from '../shared/plot/quantity';
import { evenly, roundUp, type Point } from '../shared/plot/scale';
import type { Units } from '../shared/units/units';

export const againsts = ['seconds', 'grams'] as const;
export type Against = (typeof againsts)[number];

/** What shots are aligned at. */
export const froms = {
  lever: 'the lever\u2019s first move',
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

/** Points of all lines of a quantity together; each has its share of them, and more than it can show at the least. */
const mostPoints = 6000;
const leastPoints = 250;
export const pointsFor = (shots: number) => Math.max(leastPoints, Math.min(500, mostPoints / Math.max(1, shots)));

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
  const line = evenly(values, curves.stepSeconds, offset, most);
  if (against === 'seconds') return line.map(([x, y]) => [x, y * factor]);
  const grams = evenly(curves.weightGrams, curves.stepSeconds, offset, most);
  return line.flatMap(([, y], i) => {
    const x = grams[i]?.[1];
    return x === undefined || !Number.isFinite(x) ? [] : [[Math.max(0, x), Math.max(0, y * factor)] as const];
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

export const axisEnd = (lines: readonly (readonly Point[])[], step: number, least: number) =>
  roundUp(
    lines.reduce((most, line) => line.reduce((m, p) => (Number.isFinite(p[1]) ? Math.max(m, p[1]) : m), most), 0),
    step,
    least,
  );

/** The name of the axis along the bottom. */
export const alongOf = (against: Against, from: From) =>
  against === 'grams' ? 'grams in the cup' : `seconds from ${from === 'lever' ? 'lever' : froms[from]}`;
