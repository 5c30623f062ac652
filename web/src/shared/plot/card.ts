import { path, type Point } from './scale';

/**
 * An indicator card begins again with every stroke: points of ml and bar, apart where the water of the stroke falls
 * back.
 */
export function strokesOf(points: readonly Point[]): Point[][] {
  const strokes: Point[][] = [];
  let last = Infinity;
  for (const point of points) {
    if (point[0] < last - 1) strokes.push([]);
    last = point[0];
    strokes.at(-1)!.push(point);
  }
  return strokes;
}

/** The lines of a card, and the area under them, which is work. */
export function cardPaths(points: readonly Point[], x: (v: number) => number, y: (v: number) => number) {
  const strokes = strokesOf(points);
  const lines = strokes.map((stroke) => path(stroke, x, y));
  const areas = strokes.map(
    (stroke, i) => `${lines[i]}L${x(stroke.at(-1)![0]).toFixed(1)} ${y(0)}L${x(stroke[0]![0]).toFixed(1)} ${y(0)}Z`,
  );
  return { line: lines.join(''), area: areas.join('') };
}
