import { Box } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { useLearned } from '../shared/api/queries';
import { H2, Panel } from '../shared/ui/elements';
import { Table } from '../shared/ui/Table';
import { number } from '../shared/units/units';
import type { Detail } from './useKeepMachine';

type Delay = Schemas['LearnedDelay'];

const range = (d: Delay) => (d.low === null || d.high === null ? '' : `${number(d.low, 2)} to ${number(d.high, 2)} s`);

/**
 * What pulls on this machine have told: how long coffee hangs at the spout, how late the scales show, how long a hand
 * goes on.
 */
export function LearnedPanel({ machine }: { machine: Detail }) {
  const { data: learned } = useLearned();
  if (!learned) return null;
  const here = (d: Delay) => d.machineId === machine.id;
  const rows: [string, Delay][] = [
    ...learned.spouts
      .filter(here)
      .map((d): [string, Delay] => [
        d.bottomless ? 'Coffee hangs at the bottomless basket' : 'Coffee hangs at the spout',
        d,
      ]),
    ...(learned.spouts.some(here) ? learned.scales : []).map((d): [string, Delay] => [`${d.of} shows it late by`, d]),
    ...learned.hands.filter(here).map((d): [string, Delay] => [`After the cue to stop, ${d.of} goes on for`, d]),
  ];
  return (
    <Panel>
      <H2>Learned from its pulls</H2>
      {rows.length === 0 ? (
        <Box color="quiet" fontSize="14px">
          Nothing yet. Each pull with a gauge and a scale tells how long coffee hangs at the spout, how late the scale
          shows it, and how long the hand goes on after the cue; the coach goes by it from the next pull on.
        </Box>
      ) : (
        <>
          <Table
            label="Learned from its pulls"
            head={['what', 'best', 'eight in ten', 'pulls']}
            rows={rows.map(([what, d]) => ({
              key: what,
              cells: [what, `${number(d.seconds, 2)} s`, range(d), String(d.pulls)],
            }))}
          />
          <Box color="quiet" fontSize="13px" mt="2">
            The coach takes these out when it says what to hold and when to stop. More pulls narrow them.
          </Box>
        </>
      )}
    </Panel>
  );
}
