import { Box, Grid, chakra } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';
import { Pane } from '../shared/plot/Pane';
import { quantity } from '../shared/plot/quantity';
import { lineRows } from '../shared/plot/rows';
import { path } from '../shared/plot/scale';
import { Figure, Waiting } from '../shared/ui/elements';
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
        Solid: bled. Short dashes: with the air of its filling. Long dashes: the level,{' '}
        {number(points[0]!.underTopMm, 0)} mm under the top cold and {number(points.at(-1)!.underTopMm, 0)} mm hot;{' '}
        {number(points[0]!.headspaceMl, 0)} ml of steam space becomes {number(points.at(-1)!.headspaceMl, 0)} ml.
      </Box>
    </>
  );
}

function GaugeChart({ boiler }: { boiler: Schemas['BehindTheGauge'] }) {
  const units = useUnits();
  const { unit, show } = units.of('degC');
  const points = boiler.points;
  const set = boiler.setBar * units.pressureFactor;
  const deepest = Math.max(...points.map((p) => p.underTopMm)) * 1.6;
  const along = (of: (p: (typeof points)[number]) => number) => points.map((p) => [show(p.waterC), of(p)] as const);
  return (
    <Pane
      label="Gauge pressure and water level against water temperature"
      height={200}
      room={44}
      xDomain={[show(points[0]!.waterC), show(points.at(-1)!.waterC)]}
      yDomain={[0, set * 1.25]}
      y2Domain={[deepest, 0]}
      yColour={quantity.pressure.text}
      yLabel={`Gauge, ${units.pressureUnit}`}
      xLabel={`water in the boiler, ${unit}`}
      y2Label="Level, mm under the top"
      y2Colour={ink('quiet')}
      table={lineRows(`Water, ${unit}`, 0, [
        { name: `Bled, ${units.pressureUnit}`, line: along((p) => p.bledBar * units.pressureFactor), digits: 2 },
        {
          name: `With its air, ${units.pressureUnit}`,
          line: along((p) => p.unbledBar * units.pressureFactor),
          digits: 2,
        },
        { name: 'Level, mm under the top', line: along((p) => p.underTopMm), digits: 1 },
      ])}
    >
      {({ x, y, y2, left, right }) => {
        const line = (of: (p: (typeof points)[number]) => number, scale: (v: number) => number) =>
          path(along(of), x, scale);
        return (
          <>
            <path
              d={line((p) => p.underTopMm, y2)}
              fill="none"
              stroke={ink('edge')}
              strokeWidth="1.4"
              strokeDasharray="7 3"
            />
            <path
              d={line((p) => p.bledBar * units.pressureFactor, y)}
              fill="none"
              stroke={ink('pressure')}
              strokeWidth="2.6"
            />
            <path
              d={line((p) => Math.min(p.unbledBar, boiler.setBar * 1.25) * units.pressureFactor, y)}
              fill="none"
              stroke={ink('pressure')}
              strokeWidth="1.6"
              strokeDasharray="3 3"
            />
            <line x1={left} x2={right} y1={y(set)} y2={y(set)} stroke={ink('edge')} />
            <chakra.text x={left + 6} y={y(set) - 4} fill={ink('quiet')} fontSize="12px">
              set pressure
            </chakra.text>
          </>
        );
      }}
    </Pane>
  );
}
