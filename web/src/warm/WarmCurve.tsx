import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Frame } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { linear, path } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** Group temperature against minutes from switch-on, with the band it should be in and a mark for now. */
export function WarmCurve({ view, nowMinutes }: { view: Schemas['WarmView']; nowMinutes: number | null }) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const t = (c: number) => Number(units.temperature(c, 1).value);
  const height = 240;
  const x = linear([0, 40], [44, Math.max(100, width - 12)]);
  const y = linear([t(10), t(95)], [height - 36, 26]);
  const [low, high] = [t(view.bandLowC), t(view.bandHighC)];
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="Group temperature against minutes from switch-on">
          <Frame
            left={44}
            right={Math.max(100, width - 12)}
            top={26}
            bottom={height - 36}
            x={x}
            y={y}
            yColour={quantity.temperature.text}
            yLabel={`Group, ${units.temperature(0).unit} (computed, dotted)`}
            xLabel="minutes from switch-on"
          >
            <rect
              x={44}
              width={Math.max(0, width - 56)}
              y={y(high)}
              height={y(low) - y(high)}
              fill={ink('plan')}
              opacity="0.18"
            />
            <text x={50} y={y(high) + 14} fill={ink('quiet')} style={{ fontSize: '12px' }}>
              band for the lever
            </text>
            <path
              d={path(
                view.curve.map((p) => [p.minutes, t(p.groupC)] as const),
                x,
                y,
              )}
              fill="none"
              stroke={quantity.temperature.stroke}
              strokeWidth={quantity.temperature.width}
              strokeDasharray={quantity.temperature.dash}
              strokeLinecap="round"
            />
            {nowMinutes !== null && nowMinutes <= 40 && (
              <g>
                <line x1={x(nowMinutes)} x2={x(nowMinutes)} y1={26} y2={height - 36} stroke={ink('text')} />
                <text x={x(nowMinutes) + 4} y={38} fill={ink('text')} style={{ fontSize: '12px' }}>
                  now
                </text>
              </g>
            )}
          </Frame>
        </svg>
      )}
    </Box>
  );
}
