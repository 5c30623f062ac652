import { firstFrom, path, thinned, type Point } from '../plot/scale';

const pieceWidth = 40;
const bucketWidth = 1.5;
const namespace = 'http://www.w3.org/2000/svg';

/** Where a line is drawn: its axes, the x at the left edge, and how many pixels one unit of x takes. */
export interface Place {
  x: (v: number) => number;
  y: (v: number) => number;
  from: number;
  pixelsPerX: number;
}

/**
 * A line that grows at its end only, in pieces of some forty pixels within one group. A piece that is full stays as it
 * is, so that the
 * browser paints no more than the newest again, however long the line has become.
 */
export class GrowingLine {
  private piece: SVGPathElement | null = null;
  private begins = 0;
  /** Pixels of line before the newest piece, for dashes that go on across pieces. */
  private before = 0;

  constructor(private readonly group: SVGGElement) {}

  /** Forgets what is drawn: the place has changed. */
  clear() {
    this.group.replaceChildren();
    this.piece = null;
  }

  /** Draws what has come since the last time; points in order of x, only ever added to. */
  draw(points: readonly Point[], { x, y, from, pixelsPerX }: Place) {
    // the last point before the edge too, so that the line comes in from there
    if (!this.piece) this.begin(Math.max(0, firstFrom(points, from) - 1), 0);
    const bucket = bucketWidth / pixelsPerX;
    for (;;) {
      const first = points[this.begins];
      if (!first) return;
      const end = firstFrom(points, first[0] + pieceWidth / pixelsPerX);
      const full = end < points.length - 1;
      const shown = thinned(points.slice(this.begins, full ? end + 1 : undefined), -Infinity, bucket);
      this.piece!.setAttribute('d', path(shown, x, y));
      if (!full) return;
      this.begin(end, this.before + lengthOf(shown, x, y));
    }
  }

  private begin(index: number, before: number) {
    this.begins = index;
    this.before = before;
    this.piece = document.createElementNS(namespace, 'path');
    this.piece.setAttribute('stroke-dashoffset', before.toFixed(1));
    this.group.append(this.piece);
  }
}

function lengthOf(points: readonly Point[], x: (v: number) => number, y: (v: number) => number): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const step = Math.hypot(x(b[0]) - x(a[0]), y(b[1]) - y(a[1]));
    if (Number.isFinite(step)) length += step;
  }
  return length;
}
