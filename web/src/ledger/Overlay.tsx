import { chakra } from '@chakra-ui/react';
import { useId, useMemo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Frame, Hatch } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { bandPath, linear, path, tenth, type Point } from '../shared/plot/scale';
import { Tabled } from '../shared/plot/Tabled';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import {
  alongEnds,
  alongOf,
  axisEnd,
  axisOf,
  dashOf,
  letterOf,
  lineOf,
  pointsFor,
  type Against,
  type From,
  type Shown,
} from './overlayLines';

interface Props {
  shots: readonly Schemas['ShotView'][];
  against: Against;
  from: From;
  above: Shown;
  below: Shown;
  /** The shot that is pointed at comes forward; null for none. */
  ahead: number | null;
  point?: (index: number | null) => void;
  height?: number;
}

// styled once for all letters: twenty shots carry some hundred
const Lettered = chakra('g', { base: { '& text': { fontSize: '11px', fontWeight: 650 } } });

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Where along its line a shot carries its letter. */
const letterAt = [0.12, 0.45, 0.78];

/** Radius of the circle round a letter, px. */
const circlePx = 8.5;

/** A line as it is drawn, with the places of its letters in px. */
interface Drawn {
  d: string;
  at: readonly Point[];
}

/** All that is drawn but which shot comes forward: pointing at one after the other works nothing out again. */
function useDrawn({ shots, against, from, above, below, height = 460, width }: Props & { width: number }) {
  const units = useUnits();
  return useMemo(() => {
    const most = pointsFor(shots.length);
    const of = (what: Shown | 'plan') => shots.map((shot) => lineOf(shot, what, against, from, units, most));
    const [upper, lower, plans] = [of(above), of(below), above === 'pressure' ? of('plan') : []];
    const bands = shots.map((shot) => shot.plan.bandBar * units.pressureFactor);
    const [left, right, split, bottom] = [40, Math.max(90, width - 20), Math.round(height * 0.55), height - 36];
    const lowerTop = split + 40;
    const x = linear(alongEnds([...upper, ...lower]), [left, right]);
    const upperAxis = axisOf(above, units);
    const lowerAxis = axisOf(below, units);
    const y = linear([0, axisEnd(upper, upperAxis, plans, bands)], [split, 26]);
    const g = linear([0, axisEnd(lower, lowerAxis)], [bottom, lowerTop]);
    const drawn = (lines: Point[][], sy: (v: number) => number): Drawn[] =>
      lines.map((line, i) => ({
        d: path(line, x, sy),
        at: letterAt
          .map((part) => line[Math.floor((part + (0.2 * i) / shots.length) * (line.length - 1))])
          .filter((p): p is Point => p !== undefined && Number.isFinite(p[1]))
          .map((p) => [tenth(x(p[0])), tenth(sy(p[1]))]),
      }));
    return {
      upper: drawn(upper, y),
      lower: drawn(lower, g),
      band: (i: number) => ((plans[i]?.length ?? 0) > 1 ? bandPath(plans[i]!, bands[i]!, x, y) : null),
      frame: { left, right, split, bottom, lowerTop },
      scales: { x, y, g },
      axes: { upper: upperAxis, lower: lowerAxis },
    };
  }, [shots, against, from, above, below, units, width, height]);
}

/**
 * Several shots over each other, two quantities one above the other, of a width in px. Which shot a line belongs to is
 * said by the letters it carries and by its dash.
 */
export function Overlay(props: Props & { width: number }) {
  const { shots, against, from, above, below, height = 460 } = props;
  const units = useUnits();
  const along = alongOf(against, from);
  const columns = (lineIn: (shot: Schemas['ShotView'], what: Shown) => Point[]) =>
    [above, below].flatMap((what) =>
      shots.map((shot, i) => ({
        name: `${letterOf(i)}, ${axisOf(what, units).unit}`,
        line: lineIn(shot, what),
        digits: what === 'flow' ? 2 : 1,
      })),
    );
  // the numbers are worked out when somebody asks for them
  const rows = () =>
    lineRows(
      capital(along),
      1,
      columns((shot, what) => lineOf(shot, what, against, from, units).toSorted((a, b) => a[0] - b[0])),
    ).rows();
  return (
    <Tabled
      label={`${shots.length} shots over each other, ${along}`}
      height={height}
      table={{
        ...lineRows(
          capital(along),
          1,
          columns(() => []),
        ),
        rows,
      }}
    >
      <OverlayDrawing {...props} />
    </Tabled>
  );
}

interface LinesProps {
  lines: readonly Drawn[];
  what: Shown;
  ahead: number | null;
  point?: (index: number | null) => void;
}

/** The lines of a quantity, each with its letter; the one that is pointed at is drawn last. */
function Lines({ lines, what, ahead, point }: LinesProps) {
  const { stroke } = quantity[what];
  const thick = what === 'pressure' ? 2.4 : 1.8;
  const strength = (i: number) =>
    ahead !== null ? (i === ahead ? 1 : 0.22) : lines.length <= 1 ? 1 : 1 - (0.35 * i) / (lines.length - 1);
  const order = lines.map((_, i) => i).sort((a, b) => Number(a === ahead) - Number(b === ahead));
  return (
    <Lettered>
      {order.map((i) => (
        <g
          key={i}
          opacity={strength(i)}
          onPointerEnter={point && (() => point(i))}
          onPointerLeave={point && (() => point(null))}
        >
          <path
            d={lines[i]!.d}
            fill="none"
            stroke={stroke}
            strokeWidth={i === ahead ? 3.4 : thick}
            strokeDasharray={dashOf(i)}
          />
          <Letters at={lines[i]!.at} letter={letterOf(i)} stroke={stroke} />
        </g>
      ))}
    </Lettered>
  );
}

/** A line's letter at some of its points, each in a circle: two elements for all, as twenty shots have a hundred. */
function Letters({ at, letter, stroke }: { at: readonly Point[]; letter: string; stroke: string }) {
  if (at.length === 0) return null;
  const half = `a${circlePx} ${circlePx} 0 1 0 `;
  const circle = `${half}${2 * circlePx} 0${half}${-2 * circlePx} 0`;
  return (
    <>
      <path d={at.map(([x, y]) => `M${x - circlePx} ${y}${circle}`).join('')} fill={ink('panel')} stroke={stroke} />
      <text
        x={at.map(([x]) => x).join(' ')}
        y={at.map(([, y]) => y + 4).join(' ')}
        textAnchor="middle"
        fill={ink('text')}
      >
        {letter.repeat(at.length)}
      </text>
    </>
  );
}

/** The drawing alone, of a width in px. */
export function OverlayDrawing(props: Props & { width: number; y?: number }) {
  const { shots, against, from, above, below, ahead, point, height = 460, width, y: offset } = props;
  const hatch = useId();
  const { upper, lower, band, frame, scales, axes } = useDrawn(props);
  const { left, right, split, bottom, lowerTop } = frame;
  const along = alongOf(against, from);
  const hatched = band(ahead ?? 0);
  return (
    <svg
      width={width}
      height={height}
      y={offset}
      role="img"
      aria-label={`${shots.length} shots over each other, ${along}`}
      data-testid="overlay"
    >
      <defs>
        <Hatch id={hatch} />
      </defs>
      <Frame
        left={left}
        right={right}
        top={26}
        bottom={split}
        x={scales.x}
        y={scales.y}
        yLabel={axes.upper.label}
        yColour={quantity[above].text}
      >
        {hatched && (
          <>
            <path d={hatched} fill={`url(#${hatch})`} />
            <chakra.text x={right} y={19} textAnchor="end" fill={ink('quiet')} fontSize="13px">
              hatched: the plan of {letterOf(ahead ?? 0)}
            </chakra.text>
          </>
        )}
        <Lines lines={upper} what={above} ahead={ahead} point={point} />
      </Frame>
      <Frame
        left={left}
        right={right}
        top={lowerTop}
        bottom={bottom}
        x={scales.x}
        y={scales.g}
        yTicks={4}
        yColour={quantity[below].text}
        xLabel={along}
        yLabel={axes.lower.label}
      >
        <Lines lines={lower} what={below} ahead={ahead} point={point} />
      </Frame>
    </svg>
  );
}
