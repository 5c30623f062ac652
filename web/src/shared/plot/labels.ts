import type { Point } from './scale';

/**
 * Of some heights the one at which a label is farthest from the lines that pass through its width; px, as everything
 * here.
 */
export function freest(
  heights: readonly number[],
  lines: readonly (readonly Point[])[],
  from: number,
  to: number,
): number {
  // from one point to the next: a steep line passes all heights between
  const passing = lines.flatMap((line) =>
    line.slice(1).flatMap(([x, y], i) => {
      const [x0, y0] = line[i]!;
      return x >= from && x0 <= to ? [[Math.min(y0, y), Math.max(y0, y)] as const] : [];
    }),
  );
  const room = (height: number) => Math.min(...passing.map(([up, down]) => Math.max(up - height, height - down, 0)));
  return heights.reduce((best, next) => (room(next) > room(best) ? next : best));
}

/** A stretch of a line of text that is taken, px. */
export interface Span {
  from: number;
  to: number;
}

/**
 * For each label, from left to right, the first of so many lines of text on which it is free of those before it; where
 * none is, the line that is taken least far.
 */
export function staggered(labels: readonly Span[], lines: number): number[] {
  const taken: Span[][] = Array.from({ length: lines }, () => []);
  return labels.map((label) => {
    const free = taken.findIndex((spans) => spans.every(({ from, to }) => to <= label.from || from >= label.to));
    const ends = taken.map((spans) => Math.max(-Infinity, ...spans.map(({ to }) => to)));
    const line = free >= 0 ? free : ends.indexOf(Math.min(...ends));
    taken[line]!.push(label);
    return line;
  });
}

/** How far letters reach above and below their baseline, px. */
const ascent = 10;
const descent = 4;

/** What is left of an upright line that gives way to labels at some baselines, whatever their order; px from the top. */
export function beside(top: number, bottom: number, baselines: readonly number[]): (readonly [number, number])[] {
  const sorted = [...baselines].sort((a, b) => a - b);
  const from = [top, ...sorted.map((baseline) => baseline + descent)];
  const to = [...sorted.map((baseline) => baseline - ascent), bottom];
  return from.map((start, i) => [start, to[i]!] as const).filter(([start, end]) => end > start);
}
