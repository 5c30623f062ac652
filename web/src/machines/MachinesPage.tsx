import { Box, Grid } from '@chakra-ui/react';
import { useQueries } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { EmptyState } from '../shared/ui/EmptyState';
import { Button, H2, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { PutAway } from '../shared/bench/PutAway';
import { CutawayDrawing } from '../shared/machine/CutawayDrawing';
import { TextLink } from '../shared/ui/TextLink';
import { wide } from '../theme/type';

/** Of a machine, there or still to come: none moves when the one above it comes later. */
const height = '344px';

/** The machines on the bench, each drawn from its own numbers. */
export default function MachinesPage() {
  const { data: bench, error } = useBench();
  const units = useUnits();
  const details = useQueries({
    queries: (bench?.machines ?? []).map((m) => ({
      queryKey: ['machine', m.id],
      queryFn: () => data(api.GET('/api/machines/{id}', { params: { path: { id: m.id } } })),
    })),
  });
  if (!bench) {
    return (
      <>
        <PageTitle title="Machines" />
        <Waiting error={error} />
      </>
    );
  }
  return (
    <>
      <PageTitle
        title="Machines"
        aside={
          <Button tone="strong" asChild>
            <Link to="/machines/new">Add a machine</Link>
          </Button>
        }
      >
        What each can do, how hot it is, and how to measure it with kitchen things.
      </PageTitle>
      {bench.machines.length === 0 && (
        <EmptyState
          title="No machine yet"
          action={
            <Button tone="strong" asChild>
              <Link to="/welcome">Begin with yours</Link>
            </Button>
          }
        >
          Each machine is drawn from its own numbers here, with what it can do and how to measure it with kitchen
          things.
        </EmptyState>
      )}
      <Grid
        templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(2, minmax(0,1fr))', xl: 'repeat(3, minmax(0,1fr))' }}
        gap="4"
      >
        {bench.machines.map(({ id, name }, i) => {
          const m = details[i]?.data;
          if (!m)
            return (
              <Panel key={id} minHeight={height}>
                <H2>{name}</H2>
                <Waiting error={details[i]?.error} />
              </Panel>
            );
          return (
            <Panel key={id} minHeight={height}>
              <CutawayDrawing
                family={m.spec.family}
                cut={m.cutaway}
                restricted={(m.spec.restrictorBarS2PerMl2 ?? 0) > 0}
                height={210}
                label={`Section through ${m.name}`}
              />
              <Box mt="2" fontSize="19px" {...wide}>
                <TextLink to={`/machines/${m.id}`}>{m.name}</TextLink>
              </Box>
              <Box fontSize="14px" color="quiet">
                {m.familyName}
              </Box>
              <Box fontSize="14px" mt="1">
                Up to {number(m.can.largestYieldGrams, 0)} g in the cup
                {m.can.reachBar !== null
                  ? `, ${units.pressure(m.can.reachBar).value} ${units.pressureUnit} with your force`
                  : m.spec.springTopBar !== null && m.spec.springTopBar !== undefined
                    ? `, spring from ${units.pressure(m.spec.springTopBar).value} ${units.pressureUnit}`
                    : ''}
                .{' '}
                {m.heatIsFamily
                  ? 'Heat constants of its family.'
                  : `Heat constants learned from ${m.heat.fittedReadings} readings.`}
              </Box>
            </Panel>
          );
        })}
      </Grid>
      <Box mt="4" maxWidth="640px">
        <PutAway things={bench.putAway.filter((t) => t.kind === 'Machines')} />
      </Box>
    </>
  );
}
