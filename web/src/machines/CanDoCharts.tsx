import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Frame } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { linear, path } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

type CanDo = Schemas['CanDo'];

const height = 190;

/** Hand force over the stroke at three pressures, and the force the brewer is willing to use. */
export function ForceChart({ can, willingKgf }: { can: CanDo; willingKgf: number | null }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const f = (kgf: number) => Number(units.force(kgf, 3).value);
  const most = Math.max(...can.force.flatMap((l) => l.points.map((p) => p.handKgf)), willingKgf ?? 0);
  const [left, right, top, bottom] = [40, Math.max(140, width - 64), 26, height - 36];
  const x = linear([0, 100], [left, right]);
  const y = linear([0, f(most) * 1.25], [bottom, top]);
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="Hand force over the stroke at three pressures">
          <Frame
            left={left}
            right={right}
            top={top}
            bottom={bottom}
            x={x}
            y={y}
            yTicks={4}
            yColour={ink('text')}
            yLabel={`Force at the handle, ${units.force(0).unit}`}
            xLabel="stroke done, %"
          >
            {can.force.map((l, i) => (
              <g key={l.pressureBar}>
                <path
                  d={path(
                    l.points.map((p) => [p.strokeShare * 100, f(p.handKgf)] as const),
                    x,
                    y,
                  )}
                  fill="none"
                  stroke={ink('pressure')}
                  strokeWidth={1.2 + i * 0.7}
                />
                <text
                  x={right + 6}
                  y={y(f(l.points.at(-1)!.handKgf)) + 4}
                  fill={ink('pressure')}
                  style={{ fontSize: '13px', fontWeight: 600 }}
                >
                  {units.pressure(l.pressureBar, 0).value} {units.pressureUnit}
                </text>
              </g>
            ))}
            {willingKgf !== null && can.reachBar !== null && (
              <g>
                <line
                  x1={left}
                  x2={right}
                  y1={y(f(willingKgf))}
                  y2={y(f(willingKgf))}
                  stroke={ink('text')}
                  strokeDasharray="8 4"
                />
                <text x={left + 6} y={y(f(willingKgf)) - 4} fill={ink('text')} style={{ fontSize: '12px' }}>
                  what you are willing to use
                </text>
              </g>
            )}
          </Frame>
        </svg>
      )}
    </Box>
  );
}

/** The spring's line on the indicator card: pressure against the water the piston has moved; the area is work. */
export function SpringChart({ can }: { can: CanDo }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const points = can.springLine.map((p) => [p.movedMl, p.pressureBar * units.pressureFactor] as const);
  const [left, right, top, bottom] = [40, Math.max(140, width - 16), 26, height - 36];
  const x = linear([0, points.at(-1)![0] * 1.05], [left, right]);
  const y = linear([0, points[0]![1] * 1.15], [bottom, top]);
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="Indicator card: spring pressure against water moved">
          <Frame
            left={left}
            right={right}
            top={top}
            bottom={bottom}
            x={x}
            y={y}
            yTicks={4}
            yColour={quantity.pressure.text}
            yLabel={`Spring, ${units.pressureUnit} (the area is ${number(can.springWorkJ, 0)} J of work)`}
            xLabel="water moved, ml"
          >
            <path
              d={`${path(points, x, y)}L${x(points.at(-1)![0])} ${bottom}L${left} ${bottom}Z`}
              fill={ink('pressure')}
              opacity="0.12"
            />
            <path d={path(points, x, y)} fill="none" stroke={ink('pressure')} strokeWidth="2.6" />
          </Frame>
        </svg>
      )}
    </Box>
  );
}
