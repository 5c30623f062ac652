import { Grid } from '@chakra-ui/react';
import { memo } from 'react';
import type { Schemas } from '../shared/api/client';
import { Choice } from '../shared/ui/Choice';
import { H2, Panel } from '../shared/ui/elements';

interface Props {
  bench: Schemas['BenchView'];
  machineId: number;
  brewerId: number | null;
  bagId: number | null;
  grinderId: number | null;
  chooseMachine: (id: number) => void;
  change: (part: Partial<Schemas['Sheet']>) => void;
}

/** Machine, person, beans and grinder. Drawn anew only when one of them changes. */
export const WhoPanel = memo(function WhoPanel({
  bench,
  machineId,
  brewerId,
  bagId,
  grinderId,
  chooseMachine,
  change,
}: Props) {
  const bag = bench.bags.find((b) => b.id === bagId);
  return (
    <Panel order={1}>
      <H2>Who and what</H2>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="3">
        <Choice label="Machine" options={bench.machines} value={machineId} onChange={(id) => id && chooseMachine(id)} />
        <Choice
          label="Who brews"
          none="nobody in particular"
          options={bench.brewers}
          value={brewerId}
          onChange={(brewerId) => change({ brewerId })}
        />
        <Choice
          label="Beans"
          none="not noted"
          hint={bag?.meaning}
          value={bagId}
          onChange={(bagId) => change({ bagId })}
          options={bench.bags
            .filter((b) => !b.finished || b.id === bagId)
            .map((b) => ({ id: b.id, name: `${b.name}, ${b.daysFromRoast} days` }))}
        />
        <Choice
          label="Grinder"
          none="ground elsewhere"
          options={bench.grinders}
          value={grinderId}
          onChange={(grinderId) => change({ grinderId })}
        />
      </Grid>
    </Panel>
  );
});
