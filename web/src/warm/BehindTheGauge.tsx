import { Box, Grid } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Frame } from '../shared/plot/Frame';
import { quantity } from '../shared/plot/quantity';
import { linear, path } from '../shared/plot/scale';
import { useWidth } from '../shared/plot/useSize';
import { Figure, H2, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { ink } from '../theme/system';

/** Gauge and level against temperature: what an unbled boiler hides behind its gauge, and how the level climbs. */
export function BehindTheGauge({ machineId }: { machineId: number }) {
  const units = useUnits();
  const { data: boiler, error } = useQuery({
    queryKey: ['boiler', machineId],
    queryFn: () => data(api.GET('/api/warm/boiler')),
    retry: false,
  });
  if (!boiler) return <Waiting error={error} />;
  const points = boiler.points;
  return (
    <>
      <H2>Behind the gauge</H2>
      <Grid templateColumns="minmax(0,1fr) minmax(0,1fr)" gap="3" mb="2">
        <Figure
          label={`At ${units.pressure(boiler.setBar, 2).value} ${units.pressureUnit}, bled`}
          value={units.temperature(boiler.setC, 1).value}
          unit={units.temperature(0).unit}
          colour="temperatureText"
        />
        <Figure
          label="The same gauge, never bled"
          value={units.temperature(boiler.unbledC, 1).value}
          unit={units.temperature(0).unit}
          colour="temperatureText"
          note="trapped air holds it up"
        />
      </Grid>
      <GaugeChart boiler={boiler} />
      <Box fontSize="13px" color="quiet">
        Solid: bled. Short dashes: with the air of its filling. Long dashes: the level, {number(points[0]!.underTopMm, 0)} mm
        under the top cold and {number(points.at(-1)!.underTopMm, 0)} mm hot; {number(points[0]!.headspaceMl, 0)} ml of steam
        space becomes {number(points.at(-1)!.headspaceMl, 0)} ml.
      </Box>
    </>
  );
}

function GaugeChart({ boiler }: { boiler: Schemas['BoilerKnowledge'] }) {
  const units = useUnits();
  const [ref, width] = useWidth<HTMLDivElement>();
  const t = (c: number) => Number(units.temperature(c, 2).value);
  const points = boiler.points;
  const height = 200;
  const [left, right, top, bottom] = [40, Math.max(140, width - 44), 26, height - 36];
  const x = linear([t(points[0]!.waterC), t(points.at(-1)!.waterC)], [left, right]);
  const y = linear([0, boiler.setBar * units.pressureFactor * 1.25], [bottom, top]);
  const mm = linear([0, Math.max(...points.map((p) => p.underTopMm)) * 1.6], [top, bottom]);
  const line = (of: (p: (typeof points)[number]) => number, scale: (v: number) => number) =>
    path(
      points.map((p) => [t(p.waterC), of(p)] as const),
      x,
      scale,
    );
  return (
    <Box ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="Gauge pressure and water level against water temperature">
          <Frame
            left={left}
            right={right}
            top={top}
            bottom={bottom}
            x={x}
            y={y}
            yTicks={4}
            yColour={quantity.pressure.text}
            yLabel={`Gauge, ${units.pressureUnit}`}
            xLabel={`water in the boiler, ${units.temperature(0).unit}`}
            y2={mm}
            y2Label="Level, mm under the top"
            y2Colour={ink('quiet')}
          >
            <path d={line((p) => p.underTopMm, mm)} fill="none" stroke={ink('edge')} strokeWidth="1.4" strokeDasharray="7 3" />
            <path d={line((p) => p.bledBar * units.pressureFactor, y)} fill="none" stroke={ink('pressure')} strokeWidth="2.6" />
            <path
              d={line((p) => Math.min(p.unbledBar, boiler.setBar * 1.25) * units.pressureFactor, y)}
              fill="none"
              stroke={ink('pressure')}
              strokeWidth="1.6"
              strokeDasharray="3 3"
            />
            <line
              x1={left}
              x2={right}
              y1={y(boiler.setBar * units.pressureFactor)}
              y2={y(boiler.setBar * units.pressureFactor)}
              stroke={ink('edge')}
            />
            <text x={left + 6} y={y(boiler.setBar * units.pressureFactor) - 4} fill={ink('quiet')} style={{ fontSize: '12px' }}>
              set pressure
            </text>
          </Frame>
        </svg>
      )}
    </Box>
  );
}
