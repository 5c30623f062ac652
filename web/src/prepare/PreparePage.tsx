import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMemo } from 'react';
import { Link, useNavigate } from 'react-router';
import { useBench } from '../shared/api/queries';
import { Column, Columns } from '../shared/ui/Columns';
import { NumberField } from '../shared/ui/NumberField';
import { Button, Figure, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { Gauge } from './Gauge';
import { BeforePressure } from './BeforePressure';
import { PlanPanel } from './PlanPanel';
import { GrindPanel, ShotPanel } from './PredictionPanels';
import { PuckPanel } from './PuckPanel';
import { SameAs } from './SameAs';
import { WeighPass } from './WeighPass';
import { WhoPanel } from './WhoPanel';
import { machineChooser, useSheetEditor } from './useSheetEditor';

/** One sheet in working order: who and what, how much, what comes of it, then to the pull. */
export default function PreparePage() {
  const { sheet, answer, change, settle, error, problem } = useSheetEditor();
  const { data: bench } = useBench();
  const units = useUnits();
  const navigate = useNavigate();
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
  const wrong = (field: string) => answer.problems.find((p) => p.field === field)?.sentence;
  const force = units.force(answer.handForceKgf, 0);
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
              await settle();
              await navigate('/pull?ready');
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

          <PuckPanel sheet={sheet} answer={answer} bench={bench} change={change} wrong={wrong} />

          <PlanPanel plans={plans} planKey={sheet.planKey} problems={answer.planProblems} change={change} />
          <ShotPanel sheet={answer.sheet} />
        </Column>

        <Column>
          <Panel order={2}>
            <H2>Set</H2>
            <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'repeat(3, minmax(0,1fr))' }} gap="3">
              <NumberField
                label="Dose"
                unit="g"
                big
                value={sheet.doseGrams}
                step={0.1}
                problem={wrong('doseGrams')}
                onChange={(v) => change({ doseGrams: v ?? 0 })}
              />
              <NumberField
                label="Yield"
                unit="g"
                big
                value={sheet.yieldGrams}
                step={1}
                problem={wrong('yieldGrams')}
                onChange={(v) => change({ yieldGrams: v ?? 0 })}
              />
              <NumberField
                label="Grind"
                unit={grinder?.scaleUnit}
                big
                value={sheet.grindSetting}
                step={grinder?.step ?? 1}
                digits={2}
                problem={wrong('grindSetting')}
                hint={grinder ? (grinder.finerIsLower ? 'smaller is finer' : 'larger is finer') : undefined}
                onChange={(v) => change({ grindSetting: v })}
              />
            </Grid>
            {answer.ratios.length > 0 && (
              <Flex gap="2" wrap="wrap" mt="3" role="group" aria-label="Ratios for this roast">
                {answer.ratios.map((r) => (
                  <Button
                    key={r.school}
                    disabled={!r.fits}
                    aria-pressed={sheet.yieldGrams === r.yieldGrams}
                    title={r.fits ? r.why : 'more than this machine gives from this dose'}
                    onClick={() => change({ yieldGrams: r.yieldGrams })}
                    fontWeight={sheet.yieldGrams === r.yieldGrams ? 700 : 400}
                  >
                    {r.school} 1 : {r.ratio}, {number(r.yieldGrams, 0)} g
                  </Button>
                ))}
              </Flex>
            )}
            <SameAs answer={answer} forget={() => change({ sameAsShotId: null })} />
            {problem && (
              <Box mt="2">
                <Notice role="alert">{problem}</Notice>
              </Box>
            )}
          </Panel>

          <WeighPass sheet={sheet} answer={answer} hasBoiler={machine?.spec.boilerGaugeBar != null} change={change} />
          <GrindPanel sheet={answer.sheet} typed={sheet} scaleUnit={grinder?.scaleUnit} take={change} />

          <Panel order={5} aria-live="polite">
            <H2>What comes of it</H2>
            <Grid templateColumns={{ base: 'minmax(0,1fr)', sm: 'minmax(0,1fr) minmax(0,1fr)' }} gap="5">
              <Figure label="Ratio, dose to yield" value={answer.ratio === null ? '\u2013' : `1 : ${number(answer.ratio, 2)}`} />
              <Figure
                label="Water at the puck"
                value={units.temperature(answer.waterC).value}
                unit={`\u00b1${units.temperatureStep(answer.waterPlusMinusC).value} ${units.temperature(0).unit}`}
                colour="temperatureText"
                note={
                  <Link to="/warm" style={{ textDecoration: 'underline' }}>
                    how it is warmed decides
                  </Link>
                }
              />
              <Gauge
                label={machine?.spec.boilerGaugeBar ? 'Water to move' : 'Water to pour'}
                value={number(answer.waterGrams, 0)}
                unit={`g${answer.waterMl !== null ? `, ${number(answer.waterMl, 0)} ml` : ''}`}
                share={answer.waterGrams === null ? null : answer.waterGrams / answer.mostWaterGrams}
                wholeLabel={`of ${number(answer.mostWaterGrams, 0)} g`}
                bad={answer.waterGrams !== null && !answer.fits}
              >
                {units.sentence(answer.fitSentence)}
                {answer.strokes !== null && answer.strokes > 1
                  ? ` ${answer.strokes} ${machine?.spec.family === 'HandPump' ? 'pump strokes' : 'strokes'}.`
                  : ''}
              </Gauge>
              <Gauge
                label={`Hand force at ${units.pressure(answer.peakBar, 1).value} ${units.pressureUnit}`}
                value={force.value}
                unit={answer.handForceKgf === null ? '' : force.unit}
                share={answer.handForceKgf === null ? null : answer.handForceKgf / answer.willingForceKgf}
                wholeLabel={answer.handForceKgf === null ? '' : `of ${units.force(answer.willingForceKgf).value} ${force.unit}`}
                bad={answer.handForceKgf !== null && answer.handForceKgf > answer.willingForceKgf}
              >
                {units.sentence(answer.forceSentence)}
              </Gauge>
            </Grid>
          </Panel>

          <BeforePressure cautions={answer.cautions} />
        </Column>
      </Columns>
    </>
  );
}
