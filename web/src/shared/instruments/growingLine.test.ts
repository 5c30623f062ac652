// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { GrowingLine } from './growingLine';
import type { Point } from '../plot/scale';

const at = (from = 0) => ({ x: (v: number) => (v - from) * 10, y: (v: number) => 100 - v, from, pixelsPerX: 10 });
const samples = (count: number, every = 0.1) =>
  Array.from({ length: count }, (_, i) => [i * every, 50 + 20 * Math.sin(i / 7)] as Point);

const drawn = () => {
  const group = document.createElementNS('http://www.w3.org/2000/svg', 'g');
  const ends = () =>
    [...group.children].map((piece) => {
      const points = piece.getAttribute('d')!.slice(1).split('L');
      return [points[0]!, points.at(-1)!];
    });
  return { group, line: new GrowingLine(group), ends };
};

test('pieces join, and reach from the first to the newest point', () => {
  const { line, ends } = drawn();
  const points = samples(200);
  line.draw(points, at());
  const found = ends();
  expect(found.length).toBe(5);
  for (let i = 1; i < found.length; i++) expect(found[i]![0]).toBe(found[i - 1]![1]);
  expect(found[0]![0]).toBe('0 50');
  expect(found.at(-1)![1]).toBe(`199 ${(100 - points[199]![1]).toFixed(1)}`);
});

test('a full piece is left as it is when more comes, and the whole is the same as drawn at once', () => {
  const points = samples(200);
  const step = drawn();
  const begun: Point[] = [];
  let first: Element | undefined;
  let was = '';
  for (const point of points) {
    begun.push(point);
    step.line.draw(begun, at());
    if (step.group.children.length === 2 && !first) {
      first = step.group.children[0]!;
      was = first.getAttribute('d')!;
    }
  }
  expect(step.group.children[0]).toBe(first);
  expect(first!.getAttribute('d')).toBe(was);
  const once = drawn();
  once.line.draw(points, at());
  expect(step.group.innerHTML).toBe(once.group.innerHTML);
});

test('a place further on begins at its edge, and dashes go on across pieces', () => {
  const { line, group, ends } = drawn();
  const flat = Array.from({ length: 300 }, (_, i) => [i * 0.1, 50] as Point);
  line.draw(flat, at());
  line.clear();
  line.draw(flat, at(20));
  expect(Number(ends()[0]![0]!.split(' ')[0])).toBeCloseTo(-1);
  const offsets = [...group.children].map((piece) => Number(piece.getAttribute('stroke-dashoffset')));
  expect(offsets).toEqual([0, 40, 80]);
});

test('no point, one point, and a gap in time do no harm', () => {
  const { line, group, ends } = drawn();
  line.draw([], at());
  expect(group.textContent).toBe('');
  line.draw([[0, 1]], at());
  line.draw(
    [
      [0, 1],
      [60, 2],
      [60.1, 3],
    ],
    at(),
  );
  expect(ends().at(-1)![1]).toBe('601 97');
});
