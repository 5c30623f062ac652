import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { useNavigate } from 'react-router';
import { api, data, Problem, sentenceOf, type Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Button, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { PlanSketch } from '../shared/plot/PlanSketch';
import { useSheetEditor } from '../shared/sheet/useSheetEditor';
import { TextLink } from '../shared/ui/TextLink';

/** All pull plans: those that come with the application and one's own, for this machine first. */
export default function PlansPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const units = useUnits();
  const file = useRef<HTMLInputElement>(null);
  const { data: bench, error } = useBench();
  const { sheet, change, settle } = useSheetEditor();
  const read = useMutation({
    mutationFn: async (chosen: File) => {
      let body: unknown;
      try {
        body = JSON.parse(await chosen.text());
      } catch {
        throw new Problem(`${chosen.name} cannot be read as a pull plan: it is not a JSON file.`, 0);
      }
      return data(api.POST('/api/plans/import', { body: body as Schemas['PlanFile'] }));
    },
    onSuccess: async (kept) => {
      await queries.invalidateQueries({ queryKey: ['bench'] });
      await navigate(`/plans/${kept.plan.key}`);
    },
  });
  if (!bench || !sheet) return <Waiting error={error} />;
  const machine = bench.machines.find((m) => m.id === sheet.machineId);
  const suits = (key: string) => machine?.planKeys.includes(key) ?? false;
  const plans = [...bench.plans].sort((a, b) => Number(suits(b.key)) - Number(suits(a.key)));
  return (
    <>
      <PageTitle
        title="Pull plans"
        aside={
          <Flex gap="2" wrap="wrap">
            <Button onClick={() => file.current?.click()}>Import a plan</Button>
            <input
              ref={file}
              type="file"
              accept=".json,application/json"
              aria-label="File with a pull plan"
              style={{ display: 'none' }}
              onChange={(e) => {
                const chosen = e.target.files?.[0];
                if (chosen) read.mutate(chosen);
                e.target.value = '';
              }}
            />
          </Flex>
        }
      >
        Why each exists and who disagrees. Open one to see how it would run on {machine?.name ?? 'your machine'}, and to
        make it your own.
      </PageTitle>
      {read.error && <Notice role="alert">{sentenceOf(read.error)}</Notice>}
      <Grid
        gap="3"
        templateColumns={{ base: 'minmax(0,1fr)', md: 'repeat(2, minmax(0,1fr))', lg: 'repeat(3, minmax(0,1fr))' }}
      >
        {plans.map((plan) => (
          <Panel key={plan.key} display="flex" flexDirection="column" pb={{ base: '1', md: '1' }}>
            <Flex gap="3" align="flex-start">
              <Box flex="1" minWidth={0}>
                <Box fontWeight={650} fontSize="17px">
                  {plan.name}
                </Box>
                <Box fontSize="14px" color="quiet">
                  {plan.key.startsWith('own-') ? 'your own, ' : ''}peak{' '}
                  {units.pressure(Math.max(...plan.phases.map((p) => p.toBar)), 1).value} {units.pressureUnit},{' '}
                  {plan.phases.length} phases
                </Box>
              </Box>
              <PlanSketch points={bench.planSketches[plan.key] ?? []} bandBar={plan.bandBar} width={104} height={44} />
            </Flex>
            <Box fontSize="14px" mt="2" flex="1">
              {units.sentence(plan.why)}
            </Box>
            <Flex gap="3" mt="1" align="center" wrap="wrap" fontSize="14px" minHeight="44px">
              <TextLink to={`/plans/${plan.key}`} padding="10px 0" aria-label={`Open ${plan.name}`}>
                Open
              </TextLink>
              {!suits(plan.key) ? (
                <Box color="quiet">not for {machine?.name}</Box>
              ) : plan.key === sheet.planKey ? (
                <Box>on the sheet now</Box>
              ) : (
                <Button
                  tone="quiet"
                  aria-label={`Use ${plan.name}`}
                  onClick={async () => {
                    change({ planKey: plan.key });
                    await settle();
                    await navigate('/prepare');
                  }}
                >
                  Use it
                </Button>
              )}
            </Flex>
          </Panel>
        ))}
      </Grid>
    </>
  );
}
