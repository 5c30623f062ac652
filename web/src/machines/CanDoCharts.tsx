import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path } from '../shared/plot/scale';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

type CanDo = Schemas['Abilities'];

const height = 190;

/** Hand force over the stroke at three pressures, and the force the brewer is willing to use. */
export function ForceChart({ can, willingKgf }: { can: CanDo; willingKgf: number | null }) {
  const units = useUnits();
  const { unit, show } = units.of('kgf');
  const most = Math.max(...can.force.flatMap((l) => l.points.map((p) => p.handKgf)), willingKgf ?? 0);
  return (
    <Pane
      label="Hand force over the stroke at three pressures"
      height={height}
      room={64}
      xDomain={[0, 100]}
      yDomain={[0, show(most) * 1.25]}
      yColour={ink('text')}
      yLabel={`Force at the handle, ${unit}`}
      xLabel="stroke done, %"
      table={lineRows(
        'Stroke done, %',
        0,
        can.force.map((l) => ({
          name: `At ${units.pressure(l.pressureBar, 0).value} ${units.pressureUnit}, ${unit}`,
          line: l.points.map((p) => [p.strokeShare * 100, show(p.handKgf)] as const),
          digits: 1,
        })),
      )}
    >
      {({ x, y, left, right }) => (
        <>
          {can.force.map((l, i) => (
            <g key={l.pressureBar}>
              <path
                d={path(
                  l.points.map((p) => [p.strokeShare * 100, show(p.handKgf)] as const),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('pressure')}
                strokeWidth={1.2 + i * 0.7}
              />
              <chakra.text
                x={right + 6}
                y={y(show(l.points.at(-1)!.handKgf)) + 4}
                fill={ink('pressure')}
                fontSize="13px"
                fontWeight={650}
              >
                {units.pressure(l.pressureBar, 0).value} {units.pressureUnit}
              </chakra.text>
            </g>
          ))}
          {willingKgf !== null && can.reachBar !== null && (
            <g>
              <line
                x1={left}
                x2={right}
                y1={y(show(willingKgf))}
                y2={y(show(willingKgf))}
                stroke={ink('text')}
                strokeDasharray="8 4"
              />
              <chakra.text x={left + 6} y={y(show(willingKgf)) - 4} fill={ink('text')} fontSize="12px">
                what you are willing to use
              </chakra.text>
            </g>
          )}
        </>
      )}
    </Pane>
  );
}

/** The spring's line on the indicator card: pressure against the water the piston has moved; the area is work. */
export function SpringChart({ can }: { can: CanDo }) {
  const units = useUnits();
  const points = can.springLine.map((p) => [p.movedMl, p.pressureBar * units.pressureFactor] as const);
  const end = points.at(-1)![0];
  return (
    <Pane
      label="Indicator card: spring pressure against water moved"
      height={height}
      xDomain={[0, end * 1.05]}
      yDomain={[0, points[0]![1] * 1.15]}
      yColour={quantity.pressure.text}
      yLabel={`Spring, ${units.pressureUnit} (the area is ${number(can.springWorkJ, 0)} J of work)`}
      xLabel="water moved, ml"
      table={lineRows('Water moved, ml', 0, [{ name: `Spring, ${units.pressureUnit}`, line: points, digits: 2 }])}
    >
      {({ x, y, left, bottom }) => (
        <>
          <path
            d={`${path(points, x, y)}L${x(end)} ${bottom}L${left} ${bottom}Z`}
            fill={ink('pressure')}
            opacity="0.12"
          />
          <path d={path(points, x, y)} fill="none" stroke={ink('pressure')} strokeWidth="2.6" />
        </>
      )}
    </Pane>
  );
}
