import { chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { cardPaths } from '../shared/plot/card';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { roundSteps, valueAt } from '../shared/plot/rows';
import { roundUp } from '../shared/plot/scale';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** The predicted shot on the indicator card: pressure against the water of each stroke; the area under it is work. */
export function IndicatorCard({ shot }: { shot: Schemas['PredictedShot'] }) {
  const units = useUnits();
  const points = shot.points.map((p) => [p.strokeMl, p.pressureBar * units.pressureFactor] as const);
  const end = Math.max(1, ...points.map((p) => p[0]));
  const drops = shot.points.find((p) => shot.firstDropsSeconds !== null && p.seconds >= shot.firstDropsSeconds);
  return (
    <Pane
      label="Indicator card of the predicted shot: pressure against the water of the stroke"
      height={220}
      xDomain={[0, roundUp(end, 10, 20)]}
      yDomain={[0, 10 * units.pressureFactor]}
      yColour={quantity.pressure.text}
      yLabel={`Pressure, ${units.pressureUnit} (the area is work)`}
      xLabel="water of the stroke, ml"
      table={{
        head: ['Seconds', 'Water of the stroke, ml', `Pressure, ${units.pressureUnit}`],
        rows: () =>
          roundSteps([shot.points.map((p) => [p.seconds, 0] as const)]).map((at) => [
            number(at, 1),
            number(
              valueAt(
                shot.points.map((p) => [p.seconds, p.strokeMl] as const),
                at,
              ),
              1,
            ),
            number(
              valueAt(
                shot.points.map((p) => [p.seconds, p.pressureBar * units.pressureFactor] as const),
                at,
              ),
              1,
            ),
          ]),
      }}
    >
      {({ x, y, bottom, top }) => (
        <>
          <Card {...cardPaths(points, x, y)} />
          {drops && (
            <g>
              <line
                x1={x(drops.strokeMl)}
                x2={x(drops.strokeMl)}
                y1={top}
                y2={bottom}
                stroke={ink('quiet')}
                strokeDasharray="1 4"
              />
              <chakra.text x={x(drops.strokeMl) + 4} y={top + 12} fill={ink('quiet')} fontSize="12px">
                first drops
              </chakra.text>
            </g>
          )}
        </>
      )}
    </Pane>
  );
}

const Card = ({ line, area }: ReturnType<typeof cardPaths>) => (
  <>
    <path d={area} fill={ink('pressure')} opacity="0.12" />
    <path d={line} fill="none" stroke={ink('pressure')} strokeWidth="2.6" />
  </>
);
