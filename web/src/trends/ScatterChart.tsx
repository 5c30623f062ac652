import { Flex } from '@chakra-ui/react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { path } from '../shared/plot/scale';
import { dayOf } from '../shared/clock';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** Marks told apart by their shape, one for each coffee. */
const shapes = [
  'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z',
  'M0 -5L5 4H-5Z',
  'M-4 -4H4V4H-4Z',
  'M0 -5.5L5.5 0L0 5.5L-5.5 0Z',
  'M-4.5 -4.5L4.5 4.5M4.5 -4.5L-4.5 4.5',
  'M0 -5.5V5.5M-5.5 0H5.5',
];

/** The ends of an axis, with a little room. */
function domain(values: readonly number[]): [number, number] {
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const room = Math.max((most - least) * 0.06, Math.abs(most) * 0.01, 1e-6);
  return [least - room, most + room];
}

/** One quantity against another, shot by shot, with the straight line through them and how sure it is. */
export function ScatterChart({ trend }: { trend: Schemas['TrendView'] }) {
  const navigate = useNavigate();
  const units = useUnits();
  const [ux, uy] = [units.of(trend.x.unit), units.of(trend.y.unit)];
  const points = trend.points.map((p) => ({ ...p, x: ux.show(p.x), y: uy.show(p.y) }));
  const line = trend.line?.line.map((p) => ({
    x: ux.show(p.x),
    y: uy.show(p.y),
    low: uy.show(p.low),
    high: uy.show(p.high),
  }));
  const series = [...new Set(points.map((p) => p.series))];
  const named = (q: Schemas['QuantityView'], unit: string) => (unit ? `${q.name}, ${unit}` : q.name);
  return (
    <>
      <Pane
        label={`${trend.y.name} against ${trend.x.name}, ${points.length} shots`}
        height={280}
        xDomain={domain(points.map((p) => p.x))}
        yDomain={domain([...points.map((p) => p.y), ...(line?.flatMap((p) => [p.low, p.high]) ?? [])])}
        xLabel={named(trend.x, ux.unit)}
        yLabel={named(trend.y, uy.unit)}
        yColour={ink('text')}
        table={{
          head: ['Shot', 'Day', named(trend.x, ux.unit), named(trend.y, uy.unit), 'Beans'],
          rows: () =>
            points.map((p) => [
              String(p.shotId),
              dayOf(p.pulledAt),
              number(p.x, trend.x.digits),
              number(p.y, trend.y.digits),
              p.series,
            ]),
        }}
      >
        {({ x, y }) => (
          <>
            {line && (
              <>
                <path
                  d={`M${line.map((p) => `${x(p.x).toFixed(1)} ${y(p.high).toFixed(1)}`).join('L')}L${line
                    .toReversed()
                    .map((p) => `${x(p.x).toFixed(1)} ${y(p.low).toFixed(1)}`)
                    .join('L')}Z`}
                  fill={ink('text')}
                  opacity="0.1"
                />
                <path
                  d={path(
                    line.map((p) => [p.x, p.y] as const),
                    x,
                    y,
                  )}
                  fill="none"
                  stroke={ink('text')}
                  strokeWidth="1.6"
                />
              </>
            )}
            {points.map((p) => (
              <path
                key={p.shotId}
                d={shapes[series.indexOf(p.series) % shapes.length]}
                transform={`translate(${x(p.x).toFixed(1)} ${y(p.y).toFixed(1)})`}
                fill={ink('panel')}
                stroke={ink('oxide')}
                strokeWidth="1.5"
                cursor="pointer"
                onClick={() => void navigate(`/taste/${p.shotId}`)}
              >
                <title>{`Shot ${p.shotId}, ${dayOf(p.pulledAt)}`}</title>
              </path>
            ))}
          </>
        )}
      </Pane>
      {series.length > 1 && <Legend series={series} />}
    </>
  );
}

const mostNamed = shapes.length;

const Legend = ({ series }: { series: readonly string[] }) => (
  <Flex as="ul" wrap="wrap" columnGap="4" listStyleType="none" fontSize="14px">
    {series.slice(0, mostNamed).map((name, i) => (
      <Flex as="li" key={name} gap="1.5" align="center">
        <svg width="14" height="14" viewBox="-7 -7 14 14" aria-hidden="true">
          <path d={shapes[i]} fill={ink('panel')} stroke={ink('oxide')} strokeWidth="1.5" />
        </svg>
        {name || 'beans not noted'}
      </Flex>
    ))}
  </Flex>
);
