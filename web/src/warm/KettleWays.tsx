import { Box } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { minutes } from '../shared/clock';
import { NumberField } from '../shared/ui/NumberField';
import { Caution, Waiting } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { useUnits } from '../shared/units/units';

/** The ways to warm a kettle machine side by side: water at the puck at once and after a bloom, at this altitude. */
export function KettleWays({ machineId, chosen, stepC }: { machineId: number; chosen: string; stepC: number | null }) {
  const [bloom, setBloom] = useState<number>(30);
  const [times, setTimes] = useState<number>(1);
  const { data: view, error } = useQuery({
    queryKey: ['ways', machineId, bloom, times, stepC],
    queryFn: () =>
      data(
        api.GET('/api/warm/ways', {
          params: { query: { bloomSeconds: bloom, times, ...(stepC === null ? {} : { stepC }) } },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const { wrong, elsewhere } = wrongOf(error, ['bloomSeconds', 'times']);
  return (
    <>
      <Box display="grid" gridTemplateColumns={{ base: '1fr', sm: '1fr 1fr' }} gap="3" mb="3">
        <NumberField
          label="After a bloom of"
          unit="s"
          step={5}
          digits={0}
          value={bloom}
          problem={wrong('bloomSeconds')}
          onChange={setBloom}
        />
        <NumberField
          label="Times to fill and hold"
          step={1}
          digits={0}
          value={times}
          problem={wrong('times')}
          onChange={(v) => setTimes(Math.round(v))}
        />
      </Box>
      {view ? <Ways view={view} chosen={chosen} /> : (!error || elsewhere) && <Waiting error={error} />}
    </>
  );
}

/** The ways beside each other, and what is to be said of the chosen one. */
function Ways({ view, chosen }: { view: Schemas['WaysView']; chosen: string }) {
  const units = useUnits();
  const degree = units.temperature(0).unit;
  return (
    <>
      <Table
        label="Ways to preheat"
        head={[
          'Way',
          'Takes',
          `Pressed at once, ${degree}`,
          `After ${view.bloomSeconds} s, ${degree}`,
          `Lost on the way, ${degree === '\u00b0C' ? 'K' : degree}`,
        ]}
        rows={view.ways.map((w) => ({
          key: w.method,
          strong: w.method === chosen,
          cells: [
            w.name,
            w.seconds > 0 ? `${minutes(w.seconds)} min` : 'at once',
            `${units.temperature(w.nowC).value} \u00b1${units.temperatureStep(w.plusMinusK).value}`,
            units.temperature(w.bloomedC).value,
            units.temperatureStep(w.lossC).value,
          ],
        }))}
      />
      <Box fontSize="14px" color="quiet" mt="3">
        {units.sentence(view.ways.find((w) => w.method === chosen)?.how ?? '')} Your kettle boils at{' '}
        {units.temperature(view.boilingPointC, 1).value} {degree}; a thermometer in the chamber, once, right after
        filling, would narrow these.
      </Box>
      {view.ways
        .filter((w) => w.method === chosen)
        .map((w) => (
          <Box mt="3" key={w.method}>
            <Caution>{w.caution}</Caution>
          </Box>
        ))}
    </>
  );
}
