import { Box, chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Frame } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { evenly, linear, path, roundUp, type Point } from '../shared/plot/scale';
import { Tabled } from '../shared/plot/Tabled';
import { useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

export type Against = 'seconds' | 'grams';
export type From = 'lever' | 'drops' | 'peak';

interface Props {
  shots: readonly Schemas['ShotView'][];
  against: Against;
  from: From;
  height?: number;
}

/** The letter a shot carries in the overlay and in the table. */
export const letterOf = (index: number) => String.fromCharCode(65 + index);

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const strength = (index: number, count: number) => (count <= 1 ? 1 : 1 - (0.35 * index) / (count - 1));

/**
 * Several shots over each other. Quantities keep their colours; which shot a line belongs to is said by the letters it
 * carries.
 */
export function Overlay(props: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  return <Box ref={ref}>{width > 0 && <Drawn {...props} width={width} />}</Box>;
}

function Drawn({ shots, against, from, height = 460, width }: Props & { width: number }) {
  const units = useUnits();
  const f = units.pressureFactor;
  const left = 40;
  const right = Math.max(left + 50, width - 20);
  const split = Math.round(height * 0.55);
  const bottom = height - 36;

  const lines = shots.map((shot) => {
    const { curves, moments } = shot;
    const offset = from === 'drops' ? (moments.firstDrops ?? 0) : from === 'peak' ? (moments.peak ?? 0) : 0;
    const pressure = evenly(curves.pressureBar, curves.stepSeconds, offset, 500);
    const flow = evenly(curves.flowGramsPerS, curves.stepSeconds, offset, 500);
    const grams = evenly(curves.weightGrams, curves.stepSeconds, offset, 500);
    const upper = pressure.map(
      ([x, y], i) => [against === 'grams' ? Math.max(0, grams[i]?.[1] ?? NaN) : x, y * f] as Point,
    );
    const lower =
      against === 'grams'
        ? flow.map(([, y], i) => [Math.max(0, grams[i]?.[1] ?? NaN), Math.max(0, y)] as Point)
        : grams;
    return { upper: upper.filter((p) => Number.isFinite(p[0])), lower: lower.filter((p) => Number.isFinite(p[0])) };
  });
  const all = lines.flatMap((l) => [...l.upper, ...l.lower]);
  const highest = (points: Point[]) => points.reduce((most, p) => Math.max(most, p[1]), 0);
  const x = linear(
    [Math.min(0, ...all.map((p) => Math.floor(p[0] / 5) * 5)), roundUp(Math.max(10, ...all.map((p) => p[0])), 5, 10)],
    [left, right],
  );
  const y = linear([0, roundUp(highest(lines.flatMap((l) => l.upper)), f, 9 * f)], [split, 26]);
  const lowerTop = split + 40;
  const lowerStep = against === 'grams' ? 1 : 10;
  const g = linear([0, roundUp(highest(lines.flatMap((l) => l.lower)), lowerStep, lowerStep * 2)], [bottom, lowerTop]);
  const xLabel =
    against === 'grams'
      ? 'grams in the cup'
      : { lever: 'seconds from lever', drops: 'seconds from first drops', peak: 'seconds from peak' }[from];
  const lowerKind = against === 'grams' ? quantity.flow : quantity.grams;

  const letters = (points: Point[], index: number, sy: (v: number) => number, colour: string) =>
    [0.12, 0.45, 0.78].map((part) => {
      const p = points[Math.floor((part + (0.2 * index) / shots.length) * (points.length - 1))];
      return p ? (
        <g key={part}>
          <circle cx={x(p[0])} cy={sy(p[1])} r="8.5" fill={ink('panel')} stroke={colour} />
          <chakra.text
            x={x(p[0])}
            y={sy(p[1]) + 4}
            textAnchor="middle"
            fill={ink('text')}
            fontSize="11px"
            fontWeight={650}
          >
            {letterOf(index)}
          </chakra.text>
        </g>
      ) : null;
    });

  const sorted = (points: Point[]) => points.toSorted((a, b) => a[0] - b[0]);
  const label = `${shots.length} shots over each other, ${xLabel}`;
  return (
    <Tabled
      label={label}
      height={height}
      table={lineRows(capital(xLabel), 1, [
        ...lines.map((l, i) => ({ name: `${letterOf(i)}, ${units.pressureUnit}`, line: sorted(l.upper), digits: 1 })),
        ...lines.map((l, i) => ({
          name: `${letterOf(i)}, ${against === 'grams' ? 'g/s' : 'g'}`,
          line: sorted(l.lower),
          digits: against === 'grams' ? 2 : 1,
        })),
      ])}
    >
      <svg width={width} height={height} role="img" aria-label={label} data-testid="overlay">
        <Frame
          left={left}
          right={right}
          top={26}
          bottom={split}
          x={x}
          y={y}
          yLabel={`Pressure, ${units.pressureUnit}`}
          yColour={quantity.pressure.text}
        >
          {lines.map((l, i) => (
            <path
              key={i}
              d={path(l.upper, x, y)}
              fill="none"
              stroke={quantity.pressure.stroke}
              strokeWidth={2.4}
              opacity={strength(i, lines.length)}
            />
          ))}
          {lines.map((l, i) => (
            <g key={i}>{letters(l.upper, i, y, quantity.pressure.stroke)}</g>
          ))}
        </Frame>
        <Frame
          left={left}
          right={right}
          top={lowerTop}
          bottom={bottom}
          x={x}
          y={g}
          yTicks={4}
          yColour={lowerKind.text}
          xLabel={xLabel}
          yLabel={against === 'grams' ? 'Flow, g/s' : 'Cup, g (dashed)'}
        >
          {lines.map((l, i) => (
            <path
              key={i}
              d={path(l.lower, x, g)}
              fill="none"
              stroke={lowerKind.stroke}
              strokeWidth={1.8}
              strokeDasharray={lowerKind.dash}
              opacity={strength(i, lines.length)}
            />
          ))}
          {lines.map((l, i) => (
            <g key={i}>{letters(l.lower, i, g, lowerKind.stroke)}</g>
          ))}
        </Frame>
      </svg>
    </Tabled>
  );
}
