import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { Frame } from '../shared/plot/Frame';
import { linear, path } from '../shared/plot/scale';
import { Tabled } from '../shared/plot/Tabled';
import { useWidth } from '../shared/plot/useSize';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

interface Props {
  points: readonly Schemas['FitPoint'][];
  /** Label with the wire's unit, e.g. "gauge, bar". */
  xLabel: string;
  yLabel: string;
}

/** Each reading beside what the fit says, and below it how far they are apart. */
export function FitChart({ points, xLabel, yLabel }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>();
  const units = useUnits();
  const [xName, fx] = inUnits(xLabel, units);
  const [yName, fy] = inUnits(yLabel, units);
  const sorted = [...points].map((p) => ({ x: fx(p.x), o: fy(p.observed), f: fy(p.fitted) })).sort((a, b) => a.x - b.x);
  const height = 230;
  const [left, right] = [48, Math.max(140, width - 14)];
  const ys = sorted.flatMap((p) => [p.o, p.f]);
  const pad = Math.max((Math.max(...ys) - Math.min(...ys)) * 0.15, Math.abs(ys[0]!) * 0.02, 1e-6);
  const xs = sorted.map((p) => p.x);
  const xPad = Math.max((Math.max(...xs) - Math.min(...xs)) * 0.05, 0.2);
  const x = linear([Math.min(...xs) - xPad, Math.max(...xs) + xPad], [left, right]);
  const y = linear([Math.min(...ys) - pad, Math.max(...ys) + pad], [130, 26]);
  const most = Math.max(...sorted.map((p) => Math.abs(p.o - p.f)), pad * 0.05) * 1.3;
  const r = linear([-most, most], [height - 36, 160]);
  return (
    <Box ref={ref} mb="3">
      <Tabled
        label={`${yName} against ${xName}`}
        height={height}
        table={{
          head: [xName, 'Read', 'Fitted', 'Read minus fitted'],
          rows: () => sorted.map((p) => [p.x, p.o, p.f, p.o - p.f].map((v) => number(v, 2))),
        }}
      >
        {width > 0 && (
          <svg
            width={width}
            height={height}
            role="img"
            aria-label={`${yName} against ${xName}, read and fitted, with residuals`}
          >
            <Frame
              left={left}
              right={right}
              top={26}
              bottom={130}
              x={x}
              y={y}
              yTicks={4}
              yColour={ink('text')}
              yLabel={`${yName} (crosses read, line fitted)`}
            >
              <path
                d={path(
                  sorted.map((p) => [p.x, p.f] as const),
                  x,
                  y,
                )}
                fill="none"
                stroke={ink('edge')}
                strokeWidth="1.6"
              />
              {sorted.map((p, i) => (
                <path
                  key={i}
                  d={`M${x(p.x) - 5} ${y(p.o)}h10M${x(p.x)} ${y(p.o) - 5}v10`}
                  stroke={ink('text')}
                  strokeWidth="2"
                />
              ))}
            </Frame>
            <Frame
              left={left}
              right={right}
              top={160}
              bottom={height - 36}
              x={x}
              y={r}
              yTicks={2}
              yColour={ink('quiet')}
              yLabel="Read minus fitted"
              xLabel={xName}
            >
              <line x1={left} x2={right} y1={r(0)} y2={r(0)} stroke={ink('edge')} />
              {sorted.map((p, i) => (
                <g key={i}>
                  <line x1={x(p.x)} x2={x(p.x)} y1={r(0)} y2={r(p.o - p.f)} stroke={ink('text')} />
                  <circle cx={x(p.x)} cy={r(p.o - p.f)} r="3" fill={ink('text')} />
                </g>
              ))}
            </Frame>
          </svg>
        )}
      </Tabled>
    </Box>
  );
}

/** A label of the core and its scale in the household's units. */
function inUnits(label: string, units: ReturnType<typeof useUnits>): [string, (v: number) => number] {
  if (label.endsWith(', bar')) return [label.replace(/bar$/, units.pressureUnit), (v) => v * units.pressureFactor];
  if (label.endsWith(', kgf')) return [label.replace(/kgf$/, units.force(0).unit), units.of('kgf').show];
  if (label.endsWith(', degC')) return [label.replace(/degC$/, units.temperature(0).unit), units.of('degC').show];
  return [label, (v) => v];
}
