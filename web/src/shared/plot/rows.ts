import { number } from '../units/units';
import type { Point } from './scale';

/** The numbers behind a chart: names of the columns with units, and the cells, made when they are asked for. */
export interface ChartRows {
  head: readonly string[];
  rows: () => (readonly string[])[];
}

const mostRows = 30;
const steps = [0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

/** Round values of x over what some lines cover, at most about thirty. */
export function roundSteps(lines: readonly (readonly Point[])[]): number[] {
  const xs = lines.flatMap((line) => (line.length > 0 ? [line[0]![0], line.at(-1)![0]] : []));
  if (xs.length === 0) return [];
  const [least, most] = [Math.min(...xs), Math.max(...xs)];
  const step = steps.find((s) => (most - least) / s <= mostRows) ?? (most - least) / mostRows;
  const values: number[] = [];
  for (let i = Math.ceil(least / step - 1e-9); i * step <= most + 1e-9; i++) values.push(i * step);
  return values;
}

/** A line's value at x, straight between its points; null where it does not reach. */
export function valueAt(line: readonly Point[], x: number): number | null {
  const after = line.findIndex((p) => p[0] >= x - 1e-9);
  if (after < 0) return null;
  const [x1, y1] = line[after]!;
  if (after === 0) return Math.abs(x1 - x) < 1e-6 ? y1 : null;
  const [x0, y0] = line[after - 1]!;
  const value = x1 === x0 ? y1 : y0 + ((y1 - y0) * (x - x0)) / (x1 - x0);
  return Number.isFinite(value) ? value : null;
}

interface Column {
  /** Its name with the unit. */
  name: string;
  line: readonly Point[];
  digits: number;
}

/** Several lines over one x as a table with a row for each round x. */
export function lineRows(xName: string, xDigits: number, columns: readonly Column[]): ChartRows {
  return {
    head: [xName, ...columns.map((c) => c.name)],
    rows: () =>
      roundSteps(columns.map((c) => c.line)).map((x) => [
        number(x, xDigits),
        ...columns.map((c) => number(valueAt(c.line, x), c.digits)),
      ]),
  };
}
