import type { Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { path, roundUp } from '../shared/plot/scale';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** The predicted shot on the indicator card: pressure against the water that the piston has moved; the area under it is work. */
export function IndicatorCard({ shot }: { shot: Schemas['PredictedShot'] }) {
  const units = useUnits();
  const points = shot.points.map((p) => [p.movedMl, p.pressureBar * units.pressureFactor] as const);
  const end = points.at(-1)?.[0] ?? 1;
  const drops = shot.points.find((p) => shot.firstDropsSeconds !== null && p.seconds >= shot.firstDropsSeconds);
  return (
    <Pane
      label="Indicator card of the predicted shot: pressure against water moved"
      height={240}
      xDomain={[0, roundUp(end, 10, 20)]}
      yDomain={[0, 10 * units.pressureFactor]}
      yColour={quantity.pressure.text}
      yLabel={`Pressure, ${units.pressureUnit} (the area is work)`}
      xLabel="water the piston has moved, ml"
    >
      {({ x, y, bottom, top }) => (
        <>
          <path d={`${path(points, x, y)}L${x(end)} ${bottom}L${x(0)} ${bottom}Z`} fill={ink('pressure')} opacity="0.12" />
          <path d={path(points, x, y)} fill="none" stroke={ink('pressure')} strokeWidth="2.6" />
          {drops && (
            <g>
              <line
                x1={x(drops.movedMl)}
                x2={x(drops.movedMl)}
                y1={top}
                y2={bottom}
                stroke={ink('quiet')}
                strokeDasharray="1 4"
              />
              <text x={x(drops.movedMl) + 4} y={top + 12} fill={ink('quiet')} style={{ fontSize: '12px' }}>
                first drops
              </text>
            </g>
          )}
        </>
      )}
    </Pane>
  );
}
