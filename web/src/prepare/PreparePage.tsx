import { Box } from '@chakra-ui/react';
import { startTransition, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { useBench } from '../shared/api/queries';
import { Column, Columns } from '../shared/ui/Columns';
import { Button, PageTitle, Waiting } from '../shared/ui/elements';
import { AnswerPanel } from './AnswerPanel';
import { BeforePressure } from './BeforePressure';
import { PlanPanel } from './PlanPanel';
import { GrindPanel, ShotPanel } from './PredictionPanels';
import { PuckPanel } from './PuckPanel';
import { SetPanel } from './SetPanel';
import { WeighPass } from './WeighPass';
import { WhoPanel } from './WhoPanel';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';

const nothing: readonly Schemas['ChangeOf'][] = [];

/** One sheet in working order: who and what, how much, what comes of it, then to the pull. */
export default function PreparePage() {
  const { sheet, answer, change, settle, error, problem } = useSheetEditor();
  const { data: bench } = useBench();
  const navigate = useNavigate();
  const rest = useAfterFirst(sheet !== null && bench !== undefined);
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
        {error && (
          <Box mt="3">
            <Link to="/machines/new" style={{ textDecoration: 'underline' }}>
              Add a machine
            </Link>
          </Box>
        )}
      </>
    );
  }

  const machine = bench.machines.find((m) => m.id === sheet.machineId);
  const grinder = bench.grinders.find((g) => g.id === sheet.grinderId);
  const hasBoiler = machine?.spec.boilerGaugeBar != null;
  const mayPull = answer.problems.length === 0 && answer.fits;

  return (
    <>
      <PageTitle
        title="Prepare"
        aside={
          <Button
            tone="strong"
            size="big"
            minWidth={{ base: '100%', md: '280px' }}
            disabled={!mayPull}
            onClick={async () => {
              // the pull is made ready of just this sheet, or not at all
              const version = await settle();
              if (version !== null) await navigate(`/pull?ready=${version}`);
            }}
          >
            Go to the pull
          </Button>
        }
      >
        From the bag to the locked-in portafilter, top to bottom.
      </PageTitle>
      <Columns widths={[5, 6]}>
        <Column>
          <WhoPanel
            bench={bench}
            machineId={sheet.machineId}
            brewerId={sheet.brewerId}
            bagId={sheet.bagId}
            grinderId={sheet.grinderId}
            chooseMachine={chooseMachine}
            change={change}
          />

          {rest && (
            <>
              <PuckPanel
                family={machine?.spec.family}
                baskets={bench.baskets}
                basketId={sheet.basketId ?? null}
                preparation={sheet.preparation ?? null}
                fit={answer.puck}
                holderWord={answer.holderWord}
                problems={answer.problems}
                change={change}
              />

              <PlanPanel
                plans={plans}
                sketches={bench.planSketches}
                planKey={sheet.planKey}
                problems={answer.planProblems}
                change={change}
              />
              <ShotPanel sheet={answer.sheet} />
            </>
          )}
        </Column>

        <Column>
          <SetPanel
            doseGrams={sheet.doseGrams}
            yieldGrams={sheet.yieldGrams}
            grindSetting={sheet.grindSetting}
            grinder={grinder}
            ratios={answer.ratios}
            lastTime={answer.lastTime}
            since={answer.since}
            problems={answer.problems}
            failure={problem}
            change={change}
          />
          {rest && (
            <>
              <WeighPass
                doseGrams={sheet.doseGrams}
                preparation={sheet.preparation}
                waterGrams={answer.waterGrams}
                hasBoiler={hasBoiler}
                change={change}
              />
              <GrindPanel
                sheet={answer.sheet}
                locked={sheet.locked ?? nothing}
                scaleUnit={grinder?.scaleUnit}
                take={change}
              />
              <AnswerPanel answer={answer} hasBoiler={hasBoiler} pumps={machine?.spec.family === 'HandPump'} />
              <BeforePressure cautions={answer.cautions} />
            </>
          )}
        </Column>
      </Columns>
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
