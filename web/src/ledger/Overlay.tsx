import { chakra } from '@chakra-ui/react';
import { useId, useMemo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Frame, Hatch } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { bandPath, linear, path, roundUp, type Point } from '../shared/plot/scale';
import { Tabled } from '../shared/plot/Tabled';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';
import {
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
const Lines = chakra('g', { base: { '& text': { fontSize: '11px', fontWeight: 650 } } });

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** The lines of a quantity, one a shot. */
function useLines({ shots, against, from, above, below }: Props) {
  const units = useUnits();
  return useMemo(() => {
    const most = pointsFor(shots.length);
    const of = (what: Shown | 'plan') => shots.map((shot) => lineOf(shot, what, against, from, units, most));
    return { upper: of(above), lower: of(below), plans: above === 'pressure' ? of('plan') : [] };
  }, [shots, against, from, above, below, units]);
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

/** The drawing alone, of a width in px. */
export function OverlayDrawing(props: Props & { width: number; y?: number }) {
  const { shots, against, from, above, below, ahead, point, height = 460, width, y: offset } = props;
  const units = useUnits();
  const hatch = useId();
  const { upper, lower, plans } = useLines(props);
  const withBand = (line: Point[], i: number) =>
    line.map(([x, y]) => [x, y + shots[i]!.plan.bandBar * units.pressureFactor] as const);
  const left = 40;
  const right = Math.max(left + 50, width - 20);
  const split = Math.round(height * 0.55);
  const bottom = height - 36;
  const lowerTop = split + 40;
  const xs = [...upper, ...lower].flatMap((line) => line.map((p) => p[0]));
  const [least, most] = xs.reduce(([a, b], x) => [Math.min(a, x), Math.max(b, x)], [0, 10]);
  const x = linear([Math.floor(least / 5) * 5, roundUp(most, 5, 10)], [left, right]);
  const upperAxis = axisOf(above, units);
  const lowerAxis = axisOf(below, units);
  const y = linear([0, axisEnd([...upper, ...plans.map(withBand)], upperAxis.step, upperAxis.least)], [split, 26]);
  const g = linear([0, axisEnd(lower, lowerAxis.step, lowerAxis.least)], [bottom, lowerTop]);
  const along = alongOf(against, from);
  const strength = (i: number) =>
    ahead !== null ? (i === ahead ? 1 : 0.22) : shots.length <= 1 ? 1 : 1 - (0.35 * i) / (shots.length - 1);
  // what comes forward is drawn last
  const order = shots.map((_, i) => i).sort((a, b) => Number(a === ahead) - Number(b === ahead));
  const plan = plans[ahead ?? 0] ?? [];
  const band = shots[ahead ?? 0]?.plan.bandBar ?? 0.6;
  const lines = (of: Point[][], what: Shown, sy: (v: number) => number) =>
    order.map((i) => (
      <g
        key={i}
        opacity={strength(i)}
        onPointerEnter={point && (() => point(i))}
        onPointerLeave={point && (() => point(null))}
      >
        <path
          d={path(of[i]!, x, sy)}
          fill="none"
          stroke={quantity[what].stroke}
          strokeWidth={i === ahead ? 3.4 : what === 'pressure' ? 2.4 : 1.8}
          strokeDasharray={dashOf(i)}
        />
        {letters(of[i]!, i, what, sy)}
      </g>
    ));
  const letters = (points: Point[], index: number, what: Shown, sy: (v: number) => number) =>
    [0.12, 0.45, 0.78].map((part) => {
      const p = points[Math.floor((part + (0.2 * index) / shots.length) * (points.length - 1))];
      return p && Number.isFinite(p[1]) ? (
        <g key={part}>
          <circle cx={x(p[0])} cy={sy(p[1])} r="8.5" fill={ink('panel')} stroke={quantity[what].stroke} />
          <text x={x(p[0])} y={sy(p[1]) + 4} textAnchor="middle" fill={ink('text')}>
            {letterOf(index)}
          </text>
        </g>
      ) : null;
    });
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
        x={x}
        y={y}
        yLabel={upperAxis.label}
        yColour={quantity[above].text}
      >
        {plan.length > 1 && (
          <>
            <path d={bandPath(plan, band * units.pressureFactor, x, y)} fill={`url(#${hatch})`} />
            <chakra.text x={right} y={19} textAnchor="end" fill={ink('quiet')} fontSize="13px">
              hatched: the plan of {letterOf(ahead ?? 0)}
            </chakra.text>
          </>
        )}
        <Lines>{lines(upper, above, y)}</Lines>
      </Frame>
      <Frame
        left={left}
        right={right}
        top={lowerTop}
        bottom={bottom}
        x={x}
        y={g}
        yTicks={4}
        yColour={quantity[below].text}
        xLabel={along}
        yLabel={lowerAxis.label}
      >
        <Lines>{lines(lower, below, g)}</Lines>
      </Frame>
    </svg>
  );
}
