import { Box, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data, Problem } from '../shared/api/client';
import { NumberField } from '../shared/ui/NumberField';
import { Caution, Figure, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';

/**
 * Temperature by pressure: what to bleed a stable boiler to for a wanted temperature, how long it holds, and the way
 * back.
 */
export function BleedTo({ machineId }: { machineId: number }) {
  const units = useUnits();
  const [wanted, setWanted] = useState<number | null>(null);
  const { data: view, error } = useQuery({
    queryKey: ['bleed', machineId, wanted],
    queryFn: () => data(api.GET('/api/warm/bleed', { params: { query: { wantedC: wanted ?? 92 } } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  // begins with something this machine can do
  const usual = view && Math.round(view.highestC - 2);
  useEffect(() => {
    if (usual !== undefined) setWanted((now) => now ?? usual);
  }, [usual]);
  if (!view) return <Waiting error={error} />;
  const degree = units.temperature(0).unit;
  const shown = wanted ?? Math.round(view.highestC - 2);
  return (
    <>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <NumberField
          label="Water wanted at the puck"
          unit={degree}
          step={degree === '\u00b0C' ? 0.5 : 1}
          value={units.of('degC').show(shown)}
          problem={error instanceof Problem ? units.sentence(error.message) : undefined}
          hint={
            `This machine can give ${units.temperature(view.lowestC, 1).value} to ` +
            `${units.temperature(view.highestC, 1).value}`
          }
          onChange={(v) => setWanted(units.toCelsius(v))}
        />
        {view.plan && wanted !== null && (
          <Figure
            label="Bleed to"
            value={units.pressure(view.plan.gaugeBar, 2).value}
            unit={units.pressureUnit}
            colour="pressure"
            note={`boiler at ${units.temperature(view.plan.boilerC, 1).value} ${degree}`}
          />
        )}
      </Grid>
      {wanted !== null && (
        <Box mt="3" fontSize="14px">
          {units.sentence(view.sentence)}
        </Box>
      )}
      <Box mt="3">
        <Caution>
          Steam burns: open the valve slowly, into a cloth or cup, and never touch the pressurestat with the cover on
          the mains.
        </Caution>
      </Box>
    </>
  );
}
