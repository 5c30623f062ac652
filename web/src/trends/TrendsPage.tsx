import { Box, Flex, Grid } from '@chakra-ui/react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, data } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Choice } from '../shared/ui/Choice';
import { EmptyState } from '../shared/ui/EmptyState';
import { Button, Field, H2, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { ControlPanel } from './ControlPanel';
import { LikedPanel, useLiked } from './LikedPanel';
import { ScatterChart } from './ScatterChart';
import { useFilter } from './useFilter';
import { inOurUnits } from '../shared/units/marks';

/** Any quantity against any other, what goes with liking, and what stood out in the order of time. */
export default function TrendsPage() {
  const filter = useFilter();
  const units = useUnits();
  const { data: bench } = useBench();
  const { data: quantities } = useQuery({
    queryKey: ['trends', 'quantities'],
    queryFn: () => data(api.GET('/api/trends/quantities')),
    staleTime: Infinity,
  });
  const x = filter.text('x', 'age');
  const y = filter.text('y', 'r10');
  const who = {
    machineId: filter.machineId ?? undefined,
    bagId: filter.bagId ?? undefined,
    brewerId: filter.brewerId ?? undefined,
  };
  const { data: trend, error } = useQuery({
    queryKey: ['shots', 'trend', x, y, who],
    queryFn: () => data(api.GET('/api/trends', { params: { query: { x, y, ...who } } })),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const liked = useLiked(who);
  const quantity = (label: string, key: 'x' | 'y', value: string) => (
    <Field label={label}>
      {(ids) => (
        <Select {...ids} value={value} onChange={(e) => filter.set({ [key]: e.target.value })}>
          {quantities?.map((q) => (
            <option key={q.key} value={q.key}>
              {q.name}
            </option>
          ))}
        </Select>
      )}
    </Field>
  );
  return (
    <>
      <PageTitle
        title="Trends"
        tight
        aside={
          <Flex gap="2">
            <Button asChild>
              <Link to="/ledger/arm">The arm</Link>
            </Button>
            <Button asChild>
              <Link to="/ledger">Ledger</Link>
            </Button>
          </Flex>
        }
      >
        What goes with what, over the last thousand shots.
      </PageTitle>
      <Grid
        templateColumns={{ base: 'repeat(2, minmax(0,1fr))', md: 'repeat(5, minmax(0,1fr))' }}
        gap="3"
        mb="3"
        alignItems="end"
      >
        {quantity('Show', 'y', y)}
        {quantity('Against', 'x', x)}
        <Choice
          label="Machine"
          none="all"
          options={bench?.machines ?? []}
          value={filter.machineId}
          onChange={(id) => filter.set({ machine: id })}
        />
        <Choice
          label="Beans"
          none="all"
          options={bench?.bags ?? []}
          value={filter.bagId}
          onChange={(id) => filter.set({ beans: id })}
        />
        <Choice
          label="Who"
          none="all"
          options={bench?.brewers ?? []}
          value={filter.brewerId}
          onChange={(id) => filter.set({ brewer: id })}
        />
      </Grid>
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,7fr) minmax(0,5fr)' }} gap="3" alignItems="start">
        {trend?.points.length === 0 ? (
          <EmptyState
            title="Nothing to draw"
            action={
              <Button tone="strong" asChild>
                <Link to="/ledger">See the shots</Link>
              </Button>
            }
          >
            {inOurUnits(trend.sentence)}
          </EmptyState>
        ) : (
          // as high as a drawing until it is there, so that what stands below does not move
          <Panel
            aria-label="One against the other"
            minHeight={trend || error ? undefined : { base: '85vh', lg: '410px' }}
          >
            {!trend ? (
              <Waiting error={error} />
            ) : (
              <>
                <H2 mb="1">
                  {trend.y.name} against {lower(trend.x.name)}
                </H2>
                <ScatterChart trend={trend} />
                <Box mt="2">{units.sentence(trend.sentence)}</Box>
              </>
            )}
          </Panel>
        )}
        <Grid gap="3">
          <LikedPanel asked={liked} choose={(key) => filter.set({ x: key, y: 'liking' })} />
          {/* what stands above it has its height by then */}
          {trend?.control && (liked.data || liked.error) && (
            <ControlPanel
              title={`${trend.y.name} in the order of time`}
              unit={trend.y.unit}
              digits={trend.y.digits}
              chart={trend.control}
              ids={trend.points.map((p) => p.shotId)}
            />
          )}
        </Grid>
      </Grid>
    </>
  );
}

const lower = (name: string) => (name === 'R10' ? name : name.charAt(0).toLowerCase() + name.slice(1));
