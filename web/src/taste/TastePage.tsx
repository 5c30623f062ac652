import { Box, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate, useParams } from 'react-router';
import { useState, type ReactNode } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { Fold } from '../shared/ui/Fold';
import { Folds } from '../shared/ui/Folds';
import { useLatestShot, useShot, useWhy } from '../shared/api/queries';
import { TraceChart } from '../shared/plot/TraceChart';
import { Aside, Button, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { ArmBesidePlan } from './ArmBesidePlan';
import { sayBinned } from '../shared/bench/sayBinned';
import { momentOf } from '../shared/clock';
import { corrections } from '../shared/units/corrections';
import { number, useUnits } from '../shared/units/units';
import { ExpectedBeside } from './ExpectedBeside';
import { MomentsForm } from './MomentsForm';
import { PhotoStrip } from './PhotoStrip';
import { PuckBack } from './PuckBack';
import { PullAgain } from './PullAgain';
import { ShotMeasures } from './ShotMeasures';
import { TickedStrip } from './TickedStrip';
import { inShort, TasteForm } from './TasteForm';
import { WhyPanel } from './WhyPanel';
import { EmptyState } from '../shared/ui/EmptyState';
import { ownText } from '../shared/units/decimals';

/** How a channel is known. */
const origins = {
  Measured: 'measured',
  Followed: 'followed by hand',
  Imported: 'imported',
  Assumed: 'assumed from the plan',
} as const;

const sources = { Pulled: 'pulled here', Imported: 'imported', MadeUp: 'made up' };

const freshMs = 5 * 60_000;
const justPulled = (at: string) => Date.now() - new Date(at).getTime() < freshMs;

/** The form, or a line of what was said once it was. */
function TastePanel({ shot, children }: { shot: Schemas['ShotLine']; children: ReactNode }) {
  // what was just said stays open, with the word that it is saved
  const [untasted] = useState(shot.taste.liking === null);
  if (untasted)
    return (
      <Panel py={{ base: '2', md: '3' }}>
        <H2 mb="1">
          How it tasted <Aside>stir it first</Aside>
        </H2>
        {children}
      </Panel>
    );
  return (
    <Panel py={{ base: '2', md: '2' }}>
      <Fold title="How it tasted" note={inShort(shot.taste)}>
        {children}
      </Fold>
    </Panel>
  );
}

/** One shot: its trace, what the trace says, and how it tasted. */
export default function TastePage() {
  const { id } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const units = useUnits();
  const { data: latest, error: latestError } = useLatestShot();
  const shotId = id !== undefined ? Number(id) : latest?.shots[0]?.id;
  const { data: view, error } = useShot(shotId);
  const { isFetched: reasoned } = useWhy(shotId);
  const again = useMutation({
    mutationFn: () => data(api.POST('/api/prepare/same-as/{shotId}', { params: { path: { shotId: shotId! } } })),
    onSuccess: async (sheet) => {
      queries.setQueryData(['prepare'], sheet);
      await navigate('/prepare');
    },
  });
  const bin = useMutation({
    mutationFn: () => data(api.DELETE('/api/shots/{id}', { params: { path: { id: shotId! } } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await navigate('/ledger');
      sayBinned(queries, shotId!);
    },
  });

  if (id === undefined && latest && latest.shots.length === 0) {
    return (
      <>
        <PageTitle title="Taste" />
        <EmptyState
          title="No shot yet"
          action={
            <Button tone="strong" asChild>
              <Link to="/prepare">Prepare the first one</Link>
            </Button>
          }
        >
          After a pull its trace is here, with what the trace says, how it tasted and what to change.
        </EmptyState>
      </>
    );
  }
  if (!view) {
    return (
      <>
        <PageTitle title={id === undefined ? 'Taste' : `Shot ${id}`} tight asideToCome />
        <Waiting error={error ?? latestError} />
      </>
    );
  }

  const { shot } = view;
  return (
    <>
      <PageTitle
        title={`Shot ${shot.id}`}
        tight
        aside={
          <Flex gap="2" wrap="wrap">
            <Button asChild>
              <a href={`/api/shots/${shot.id}/trace.csv`} download>
                Trace as CSV
              </a>
            </Button>
            <Button asChild>
              <Link to={`/taste/${shot.id}/card`}>Card</Link>
            </Button>
            <Button onClick={() => again.mutate()} disabled={again.isPending}>
              Repeat with a change
            </Button>
            <Button onClick={() => bin.mutate()}>Delete</Button>
          </Flex>
        }
      >
        {[shot.machine, shot.bag, shot.brewer].filter(Boolean).join(', ')}, {momentOf(shot.pulledAt)},{' '}
        {sources[shot.source]}. {number(shot.doseGrams, 1)} g
        {shot.grindSetting !== null ? ` at ${ownText(shot.grindSetting)} ${shot.scaleUnit}` : ''}, plan:{' '}
        {shot.plan.toLowerCase()}.{view.basket ? ` Basket: ${view.basket}.` : ''}
        {view.preparation ? ` Puck: ${units.sentence(view.preparation)}.` : ''}
      </PageTitle>
      {justPulled(shot.pulledAt) && view.after.length > 0 && (
        <TickedStrip key={shot.id} title="Before the holder comes off" checks={view.after} />
      )}
      {bin.error && <Notice role="alert">{sentenceOf(bin.error)}</Notice>}
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,7fr) minmax(0,5fr)' }} gap="3" alignItems="start">
        <Grid gap="3" gridColumn={{ lg: 2 }} gridRow={{ lg: 1 }}>
          <WhyPanel shotId={shot.id} tasted={shot.taste.liking !== null} />
          {/* after what stands above it: it would be pushed down under the finger */}
          {reasoned && (
            <TastePanel key={shot.id} shot={shot}>
              <TasteForm
                key={shot.id}
                shotId={shot.id}
                version={shot.version}
                taste={shot.taste}
                extraction={view.extraction}
                asked={view.before}
              />
            </TastePanel>
          )}
        </Grid>
        <Grid gap="3" gridColumn={{ lg: 1 }} gridRow={{ lg: 1 }}>
          <Panel pb={{ base: '2', md: '2' }}>
            <MomentsForm
              key={shot.id}
              shotId={shot.id}
              version={shot.version}
              moments={view.moments}
              marked={view.marked}
              more={
                <Fold title="Photos" note="of cup and puck">
                  <PhotoStrip key={shot.id} shotId={shot.id} />
                </Fold>
              }
            >
              {(moments, move) =>
                view.curves.pressureBar || view.curves.weightGrams ? (
                  <TraceChart
                    curves={view.curves}
                    moments={moments}
                    move={move}
                    bandBar={view.plan.bandBar}
                    height={264}
                    label={`Trace of shot ${shot.id}`}
                  />
                ) : (
                  <Box color="quiet">No instrument recorded this pull; only the marked moments are kept.</Box>
                )
              }
            </MomentsForm>
            <Box fontSize="13px" color="quiet">
              {view.origins
                .map((o) => `${o.channel.toLowerCase()} ${origins[o.origin]}, ${o.samples} samples`)
                .join('; ')}
              {shot.waterC !== null
                ? `; water at the puck taken as ${units.temperature(shot.waterC).value} ${units.temperature(0).unit}`
                : ''}
            </Box>
            {[view.notices, ...corrections(view.corrections, units)].filter(Boolean).map((notice) => (
              <Box key={notice} mt="3">
                <Notice>{notice}</Notice>
              </Box>
            ))}
          </Panel>
          <Panel pb={{ base: '1', md: '1' }}>
            <H2 mb="2">What the trace says</H2>
            <ShotMeasures shotId={shot.id} measures={shot.measures} sign={view.channelSign} />
            <Folds>
              <ArmBesidePlan arm={view.arm} />
              <Fold title="Resistance and heat" note="beside what was expected">
                <ExpectedBeside shotId={shot.id} resistance={view.resistance} r10={shot.measures.r10} />
              </Fold>
              {view.resistance.length > 0 && (
                <>
                  <Fold title="The puck read back">
                    <PuckBack shotId={shot.id} curves={view.curves} />
                  </Fold>
                  <Fold title="Pull it again" note="another plan, dose, yield or grind">
                    <PullAgain key={shot.id} view={view} />
                  </Fold>
                </>
              )}
            </Folds>
          </Panel>
        </Grid>
      </Grid>
    </>
  );
}
