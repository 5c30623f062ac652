import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path, roundUp, type Point } from '../shared/plot/scale';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

const waterWidth = 1.4;

/** Heat of the group and of the water at the puck, from the lever's first move. */
export function HeatChart({ heat }: { heat: Schemas['ShotHeatView'] }) {
  const units = useUnits();
  const degrees = (c: number) => units.of('degC').show(c);
  const unit = units.temperature(0).unit;
  const line = (points: readonly Schemas['TemperaturePoint'][]): Point[] =>
    points.map((p) => [p.seconds, degrees(p.temperatureC)]);
  const [group, water] = [line(heat.group), line(heat.water)];
  const seconds = roundUp(Math.max(20, ...group.map((p) => p[0]), ...water.map((p) => p[0])), 10, 20);
  // one reading holds for the whole shot
  const whole = (points: Point[]): Point[] => (points.length === 1 ? [points[0]!, [seconds, points[0]![1]]] : points);
  const band = heat.bandLowC !== null && heat.bandHighC !== null && [degrees(heat.bandLowC), degrees(heat.bandHighC)];
  const all = [...group, ...water].map((p) => p[1]).concat(band || []);
  const [low, high] = [Math.floor((Math.min(...all) - 2) / 5) * 5, Math.ceil((Math.max(...all) + 2) / 5) * 5];
  const to = (points: Point[]) => {
    const [first, last] = [number(points[0]![1], 0), number(points.at(-1)![1], 0)];
    return first === last ? '' : ` to ${last} ${unit}`;
  };
  const told = (name: string, points: Point[], measured: boolean) =>
    points.length === 0
      ? null
      : `${name} ${number(points[0]![1], 0)} ${unit}${to(points)}, ` +
        (measured ? 'measured' : points.length > 1 ? 'worked out from the session' : 'as noted with the shot');
  const words = [
    told('Group', group, heat.groupMeasured),
    told(heat.waterMeasured ? 'Thermometer' : 'Water at the puck', water, heat.waterMeasured),
  ].filter(Boolean);
  // single numbers are said; there is no course to draw
  if (group.length < 2 && water.length < 2)
    return (
      <Box mt="3" fontSize="14px" color="quiet">
        {words.join('. ')}.
      </Box>
    );
  return (
    <Box mt="3">
      <Pane
        label={`Heat through the shot. ${words.join('. ')}`}
        height={160}
        xDomain={[0, seconds]}
        yDomain={[low, high]}
        xLabel="seconds from the lever's first move"
        yLabel={`Temperature, ${unit}${band ? ' (shade: group in band)' : ''}`}
        yColour={quantity.temperature.text}
        table={lineRows('Seconds', 0, [
          { name: `Group, ${unit}`, line: whole(group), digits: 1 },
          { name: `${heat.waterMeasured ? 'Thermometer' : 'Water'}, ${unit}`, line: whole(water), digits: 1 },
        ])}
      >
        {({ x, y, left, right }) => (
          <>
            {band && (
              <rect
                x={left}
                width={right - left}
                y={y(band[1]!)}
                height={y(band[0]!) - y(band[1]!)}
                fill={ink('temperature')}
                opacity="0.16"
              />
            )}
            {[
              { name: 'group', points: whole(group), width: quantity.temperature.width },
              { name: heat.waterMeasured ? 'thermometer' : 'water', points: whole(water), width: waterWidth },
            ].map(
              ({ name, points, width }) =>
                points.length > 0 && (
                  <g key={name}>
                    <path
                      d={path(points, x, y)}
                      fill="none"
                      stroke={quantity.temperature.stroke}
                      strokeDasharray={quantity.temperature.dash}
                      strokeWidth={width}
                    />
                    <text
                      x={right - 4}
                      y={y(points.at(-1)![1]) - 5}
                      textAnchor="end"
                      fill={quantity.temperature.text}
                      style={{ fontSize: '12px' }}
                    >
                      {name}
                    </text>
                  </g>
                ),
            )}
          </>
        )}
      </Pane>
      <Box fontSize="14px" color="quiet">
        {words.join('. ')}.
      </Box>
    </Box>
  );
}
