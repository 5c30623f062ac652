import { Box, Flex, Grid } from '@chakra-ui/react';
import { lazy, Suspense, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';
import { Button, PageTitle, Waiting } from '../shared/ui/elements';
import { useAfterFirst } from '../shared/ui/useAfterFirst';
import { FitGauges } from './FitGauges';
import { PlanChoice } from './PlanChoice';
import { Ratios } from './Ratios';
import { SameAs } from './SameAs';
import { SetPanel } from './SetPanel';
import { ShotPanel } from './ShotPanel';
import { WeighPass } from './WeighPass';
import { WhoLine } from './WhoLine';

const SheetPanel = lazy(() => import('./SheetPanel'));
const nothing: readonly Schemas['ChangeOf'][] = [];

/**
 * One sheet on one screen: who and what in a line, what to set at the left, the shot that it would make at the right.
 */
export default function PreparePage() {
  const { sheet, answer, change, settle, error, problem } = useSheetEditor();
  const { data: bench } = useBench();
  const navigate = useNavigate();
  const rest = useAfterFirst(sheet !== null && bench !== undefined);
  const [changing, setChanging] = useState(false);
  const machineId = sheet?.machineId;
  const plans = useMemo(() => {
    const keys = bench?.machines.find((m) => m.id === machineId)?.planKeys ?? [];
    return bench?.plans.filter((p) => keys.includes(p.key)) ?? [];
  }, [bench, machineId]);
  const brewerId = sheet?.brewerId ?? null;
  const chooseMachine = useMemo(() => bench && machineChooser(bench, brewerId, change), [bench, brewerId, change]);

  if (error || !sheet || !answer || !bench || !chooseMachine) {
    return (
      <>
        <PageTitle title="Prepare" />
        <Waiting error={error} />
      </>
    );
  }

  const machine = bench.machines.find((m) => m.id === sheet.machineId);
  const grinder = bench.grinders.find((g) => g.id === sheet.grinderId);
  const hasBoiler = machine?.spec.boilerGaugeBar != null;
  const mayPull = answer.problems.length === 0 && answer.fits;

  return (
    <>
      <Flex gap="4" rowGap="2" mb={{ base: '2', md: '3' }} align="flex-end" wrap="wrap">
        <Box flex="1 1 340px" minWidth={0}>
          <PageTitle title="Prepare" tight inStrip />
          <WhoLine bench={bench} sheet={sheet} open={() => setChanging(true)} />
        </Box>
        <Button
          tone="strong"
          size="big"
          minHeight="56px"
          minWidth={{ base: '100%', md: '240px' }}
          disabled={!mayPull}
          onClick={async () => {
            // the pull is made ready of just this sheet, or not at all
            const version = await settle();
            if (version !== null) await navigate(`/pull?ready=${version}`);
          }}
        >
          Go to the pull
        </Button>
      </Flex>
      <Grid
        templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,5fr) minmax(0,6fr)' }}
        gap={{ base: '3', md: '4' }}
        alignItems="start"
      >
        <SetPanel
          doseGrams={sheet.doseGrams}
          yieldGrams={sheet.yieldGrams}
          grindSetting={sheet.grindSetting}
          grinder={grinder}
          ratio={answer.ratio}
          problems={answer.problems}
          failure={problem}
          change={change}
          ratios={rest && <Ratios ratios={answer.ratios} yieldGrams={sheet.yieldGrams} change={change} />}
          aside={
            rest && (
              <WeighPass
                doseGrams={sheet.doseGrams}
                preparation={sheet.preparation}
                waterGrams={answer.waterGrams}
                hasBoiler={hasBoiler}
                change={change}
              />
            )
          }
        >
          {rest && (
            <>
              <PlanChoice
                plans={plans}
                sketches={bench.planSketches}
                planKey={sheet.planKey}
                problems={answer.planProblems}
                change={change}
              />
              <FitGauges answer={answer} hasBoiler={hasBoiler} pumps={machine?.spec.family === 'HandPump'} />
              <SameAs lastTime={answer.lastTime} since={answer.since} change={change} />
            </>
          )}
        </SetPanel>
        {rest && (
          <ShotPanel
            sheet={answer.sheet}
            locked={sheet.locked ?? nothing}
            scaleUnit={grinder?.scaleUnit}
            take={change}
          />
        )}
      </Grid>
      {changing && (
        <Suspense fallback={null}>
          <SheetPanel
            bench={bench}
            sheet={sheet}
            answer={answer}
            family={machine?.spec.family}
            chooseMachine={chooseMachine}
            change={change}
            close={() => setChanging(false)}
          />
        </Suspense>
      )}
    </>
  );
}
