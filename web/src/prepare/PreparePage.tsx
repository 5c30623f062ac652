import { Box, Flex, Grid } from '@chakra-ui/react';
import { lazy, startTransition, Suspense, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';
import { Button, PageTitle, Waiting } from '../shared/ui/elements';
import { FitGauges } from './FitGauges';
import { PlanChoice } from './PlanChoice';
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
      <Flex gap="4" rowGap="2" mb="3" align="flex-end" wrap="wrap">
        <Box flex="1 1 340px" minWidth={0}>
          <PageTitle title="Prepare" tight />
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
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,5fr) minmax(0,6fr)' }} gap="4" alignItems="start">
        <SetPanel
          doseGrams={sheet.doseGrams}
          yieldGrams={sheet.yieldGrams}
          grindSetting={sheet.grindSetting}
          grinder={grinder}
          ratio={answer.ratio}
          ratios={answer.ratios}
          lastTime={answer.lastTime}
          since={answer.since}
          problems={answer.problems}
          failure={problem}
          change={change}
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

/** False until what comes first is on the screen: the sheet can be typed on before the rest of it is drawn. */
function useAfterFirst(ready: boolean): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    if (!ready) return;
    const frame = requestAnimationFrame(() => startTransition(() => setAfter(true)));
    return () => cancelAnimationFrame(frame);
  }, [ready]);
  return after;
}
