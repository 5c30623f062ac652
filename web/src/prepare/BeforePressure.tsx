import { Grid } from '@chakra-ui/react';
import { memo } from 'react';
import { Caution, H2, Panel } from '../shared/ui/elements';

/** What can hurt at this step. */
export const BeforePressure = memo(function BeforePressure({ cautions }: { cautions: readonly string[] }) {
  return (
    <Panel order={7}>
      <H2>Before any pressure</H2>
      <Grid gap="2">
        {cautions.map((caution) => (
          <Caution key={caution}>{caution}</Caution>
        ))}
      </Grid>
    </Panel>
  );
});
