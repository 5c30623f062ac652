import { Box, Flex, Grid } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';
import { api, data, Problem, sentenceOf, type Schemas } from '../shared/api/client';
import { patchMachine } from '../shared/api/patch';
import { useBench, useSession } from '../shared/api/queries';
import { timeOfDay, useNow } from '../shared/clock';
import { useKeptEdit } from '../shared/edit/useKeptEdit';
import { Choice } from '../shared/ui/Choice';
import { Column, Columns } from '../shared/ui/Columns';
import { Button, Figure, H2, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { number, useUnits } from '../shared/units/units';
import { BehindTheGauge } from './BehindTheGauge';
import { BleedTo } from './BleedTo';
import { HeatCourse } from './HeatCourse';
import { KettleWays } from './KettleWays';
import { NextStep } from './NextStep';
import { Readings } from './Readings';
import { SoundSwitch } from './SoundSwitch';
import { useSessionActions } from './useSessionActions';
import { WantsForm } from './WantsForm';
import { TextLink } from '../shared/ui/TextLink';

type Session = Schemas['SessionView'];
type Request = Schemas['SessionRequest'];

/** The session from switch-on to last rinse: planned, followed, and re-planned from what really happened. */
export default function WarmPage() {
  const { data: session, error } = useSession();
  const { data: bench } = useBench();
  const { sheet, change } = useSheetEditor();
  const queries = useQueryClient();
  if (!session || !bench || !sheet) {
    return (
      <>
        <PageTitle title="Warm" />
        <Waiting error={error} />
        {error && (
          <Box mt="3">
            <TextLink to="/machines/new">Add a machine</TextLink>
          </Box>
        )}
      </>
    );
  }
  const choose = machineChooser(bench, sheet.brewerId, change);
  return (
    <>
      <PageTitle
        title="Warm"
        aside={
          <Flex gap="3" align="flex-end" wrap="wrap">
            <SoundSwitch />
            <Box width={{ base: '100%', sm: '240px' }}>
              <Choice
                label="Machine"
                options={bench.machines}
                value={sheet.machineId}
                onChange={(id) => id && choose(id)}
              />
            </Box>
          </Flex>
        }
      >
        From switch-on to the last rinse, with the group in its band for every shot.
      </PageTitle>
      <Whole
        key={session.machineId}
        session={session}
        people={bench.brewers.map((b) => b.name)}
        setLamp={async (lamp) => {
          const machine = bench.machines.find((m) => m.id === session.machineId)!;
          await patchMachine(machine, { spec: { lamp } });
          await queries.invalidateQueries();
        }}
      />
    </>
  );
}

interface WholeProps {
  session: Session;
  people: readonly string[];
  setLamp: (lamp: Schemas['LampMeans']) => Promise<void>;
}

function Whole({ session: kept, people, setLamp }: WholeProps) {
  const actions = useSessionActions();
  const now = useNow(500);
  const queries = useQueryClient();
  const planned = kept.id !== null;
  // a session that is only a proposal is stored nowhere: what is asked for it and what would come of it are kept here
  const [asked, setAsked] = useState<Request | null>(null);
  const [trial, setTrial] = useState<Session | null>(null);
  const newest = () => queries.getQueryData<Session>(['session']) ?? kept;
  const edit = useKeptEdit<Request, Session>({
    rendered: planned ? kept : asked,
    kept: () => (newest().id === null ? asked : null) ?? { wants: newest().wants, readyAt: newest().readyAt },
    send: (body) =>
      newest().id === null
        ? data(api.POST('/api/session/preview', { body }))
        : data(api.PUT('/api/session', { params: { query: { version: newest().wantsVersion } }, body })),
    taken: (next, request) => {
      if (next.id === null) {
        setAsked(request);
        setTrial(next);
      } else queries.setQueryData(['session'], next);
    },
    outdated: () => void queries.invalidateQueries({ queryKey: ['session'] }),
  });
  const request = edit.typed ?? (planned ? null : asked) ?? { wants: kept.wants, readyAt: kept.readyAt };
  const changed = (part: Partial<Request>) => edit.change((base) => ({ ...base, ...part }));

  const session = planned ? kept : (trial ?? kept);
  const problem = edit.problem ?? actions.ask.error;
  const wrong = (field: string) =>
    problem instanceof Problem && problem.field === field ? problem.message : undefined;
  const other =
    actions.tick.error ??
    actions.undo.error ??
    actions.end.error ??
    (problem instanceof Problem && problem.field ? null : problem);
  return (
    <Columns widths={[7, 5]}>
      <Column>
        <Panel order={planned ? 2 : 1}>
          <Now session={session} />
          <HeatCourse session={session} nowMs={now} />
          <Notices sentences={session.now.notices} />
          <Summary session={session} />
        </Panel>
        {other && (
          <Box order={0}>
            <Notice role="alert">{sentenceOf(other)}</Notice>
          </Box>
        )}
        {!planned && (
          <Panel order={2}>
            <H2>For when, and for whom</H2>
            <WantsForm session={session} request={request} change={changed} wrong={wrong} people={people} />
          </Panel>
        )}
        {planned && (
          <Panel order={3}>
            <Readings session={session} actions={actions} setLamp={(lamp) => void setLamp(lamp)} />
          </Panel>
        )}
        <Panel order={5}>
          {session.hasBoiler ? (
            <BehindTheGauge machineId={session.machineId} />
          ) : (
            <KettleWays
              machineId={session.machineId}
              chosen={session.wants.preheat ?? 'None'}
              stepC={session.wants.heaterStepC ?? null}
            />
          )}
        </Panel>
        {session.hasBoiler && (
          <Panel order={6}>
            <BleedTo machineId={session.machineId} />
          </Panel>
        )}
      </Column>
      <Column>
        <Panel order={planned ? 1 : 3}>
          {planned ? (
            <NextStep session={session} nowMs={now} actions={actions} />
          ) : (
            <Proposal
              session={session}
              start={async () => {
                if (!(await edit.settle())) return;
                actions.ask.mutate(
                  { request: asked ?? request, version: kept.wantsVersion },
                  { onSuccess: () => setAsked(null) },
                );
              }}
              busy={actions.ask.isPending}
            />
          )}
        </Panel>
        {planned && (
          <Panel order={4}>
            <H2>For when, and for whom</H2>
            <WantsForm session={session} request={request} change={changed} wrong={wrong} people={people} />
            <Flex gap="2" mt="3" wrap="wrap" align="center">
              <Button tone="quiet" asChild>
                <a href="/api/session/plan.ics" download>
                  Plan as a calendar file
                </a>
              </Button>
              <Button tone="quiet" onClick={() => actions.end.mutate()}>
                End the session
              </Button>
            </Flex>
          </Panel>
        )}
      </Column>
    </Columns>
  );
}

/** How warm it is now, in figures. */
function Now({ session }: { session: Session }) {
  const units = useUnits();
  const degree = units.temperature(0).unit;
  const { now } = session;
  const banded = session.hasBoiler || session.hasHeater;
  return (
    <Grid templateColumns={{ base: 'minmax(0,1fr) minmax(0,1fr)', sm: 'repeat(4, minmax(0,1fr))' }} gap="3" mb="3">
      <Figure
        label={session.hasBoiler ? 'Group now' : 'Chamber now'}
        value={units.temperature(now.groupC).value}
        unit={`\u00b1${units.temperatureStep(now.plusMinusK).value} ${degree}`}
        colour="temperatureText"
        note={
          banded
            ? now.inBand
              ? 'in its band'
              : `band ${units.temperature(session.bandLowC).value} to ${units.temperature(session.bandHighC).value}`
            : 'metal'
        }
      />
      {session.hasBoiler ? (
        <Figure
          label="Boiler"
          value={units.temperature(now.boilerC).value}
          unit={degree}
          note={
            now.false
              ? `false pressure: ${units.pressure(now.false.gaugeBar, 2).value} ${units.pressureUnit} on the gauge would be ${units.temperature(now.false.bledC).value} if bled`
              : `${units.pressure(now.gaugeBar, 2).value} ${units.pressureUnit} on the gauge${now.elementOn ? ', heating' : ''}`
          }
        />
      ) : (
        <Figure label="Kettle boils here at" value={units.temperature(session.boilingPointC, 1).value} unit={degree} />
      )}
      <Figure
        label="Water at the puck"
        value={units.temperature(now.waterC).value}
        unit={`\u00b1${units.temperatureStep(now.waterPlusMinusK).value} ${degree}`}
        colour="temperatureText"
        note="if you pulled now"
      />
      <Figure
        label="Shots left"
        value={session.hasBoiler ? String(now.shotsLeft) : String(session.water.shotsLeft)}
        note={
          session.hasBoiler
            ? `in band in a row; water for ${session.water.shotsLeft}, or ${number(session.water.steamGramsLeft, 0)} g of steam`
            : `in ${number(session.water.nowGrams, 0)} g of kettle water`
        }
      />
    </Grid>
  );
}

/** What was ticked off that does not add up, or must not be. */
function Notices({ sentences }: { sentences: readonly string[] }) {
  const units = useUnits();
  return sentences.map((n) => (
    <Notice key={n} role="status">
      {units.sentence(n)}
    </Notice>
  ));
}

/** What the plan comes to, or why it cannot be met and what would help. */
function Summary({ session }: { session: Session }) {
  const origin = Date.parse(session.originAt);
  const at = (s: number) => timeOfDay(origin + s * 1000);
  if (session.problem) return <Trouble session={session} />;
  return (
    <Box fontSize="14px">
      {session.begun ? '' : `Begin at ${at(session.startSeconds)}. `}Last drink ready at{' '}
      <strong>{at(session.lastCupSeconds)}</strong>, all over at {at(session.endSeconds)}.
      {session.water.refills > 0
        ? ` ${session.hasBoiler ? 'The boiler' : 'The kettle'} has to be refilled on the way.`
        : ''}
      {session.hasBoiler
        ? ` ${number(session.water.atEndGrams, 0)} g of water left in the boiler at the end; ${number(session.water.minimumGrams, 0)} g must stay over the element.`
        : ''}
    </Box>
  );
}

function Trouble({ session }: { session: Session }) {
  const units = useUnits();
  return (
    <Notice role="status">
      <strong>{units.sentence(session.problem!)}</strong>
      {session.remedies.length > 0 && (
        <Box as="ul" ps="4" listStyleType="disc">
          {session.remedies.map((r) => (
            <li key={r}>{units.sentence(r)}</li>
          ))}
        </Box>
      )}
    </Notice>
  );
}

/** The plan before it is kept: what will be done and when. */
function Proposal({ session, start, busy }: { session: Session; start: () => void; busy: boolean }) {
  const origin = Date.parse(session.originAt);
  return (
    <>
      <H2>The plan</H2>
      <Button tone="strong" size="big" width="100%" disabled={busy} onClick={start}>
        Keep this plan
      </Button>
      <Box as="ol" mt="3" aria-label="Planned steps" listStyleType="none">
        {session.steps.map((s) => (
          <Flex as="li" key={s.key} gap="3" py="1" borderTopWidth="1px" borderColor="hairline" align="baseline">
            <Box width="44px" style={{ fontStretch: '78%', fontVariantNumeric: 'tabular-nums', fontWeight: 600 }}>
              {timeOfDay(origin + s.startSeconds * 1000)}
            </Box>
            <Box flex="1">{s.title}</Box>
            {s.handsFree && (
              <Box fontSize="13px" color="quiet">
                alongside
              </Box>
            )}
          </Flex>
        ))}
      </Box>
    </>
  );
}
