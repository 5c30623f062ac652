import { Box, Flex, Grid } from '@chakra-ui/react';
import { useQueryClient } from '@tanstack/react-query';
import { useState, useRef } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { wrongOf } from '../shared/edit/wrongOf';
import { patchMachine } from '../shared/api/patch';
import { useBench, useSession } from '../shared/api/queries';
import { useNow } from '../shared/clock';
import { useKeptEdit } from '../shared/edit/useKeptEdit';
import { machineChooser, useSheetEditor } from '../shared/sheet/useSheetEditor';
import { Button, Notice, PageTitle, Panel, Select, Waiting } from '../shared/ui/elements';
import { HeatCourse } from './HeatCourse';
import { HeatNow } from './HeatNow';
import { NextStep } from './NextStep';
import { PlanSteps } from './PlanSteps';
import { Proposal } from './Proposal';
import { Readings } from './Readings';
import { SessionNotices, SessionSummary } from './SessionSummary';
import { SoundSwitch } from './SoundSwitch';
import { openSteps } from './steps';
import { useSessionActions } from './useSessionActions';
import { inTheLine, ofTheWorks } from './wants';
import { WantsLine } from './WantsLine';
import { WarmTools } from './WarmTools';

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
      </>
    );
  }
  const choose = machineChooser(bench, sheet.brewerId, change);
  return (
    <>
      <Flex gap="3" align="center" wrap="wrap" mb="3">
        <Box flex="1">
          <PageTitle title="Warm" tight />
        </Box>
        <SoundSwitch />
        <Flex gap="2" align="center">
          <Box as="span" color="quiet" fontSize="13px" aria-hidden="true">
            Machine
          </Box>
          <Select aria-label="Machine" value={sheet.machineId} onChange={(e) => choose(Number(e.target.value))}>
            {bench.machines.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </Select>
        </Flex>
      </Flex>
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
  const [chosen, setChosen] = useState<string | null>(null);
  const queries = useQueryClient();
  const planned = kept.id !== null;
  // a session that is only a proposal is stored nowhere: what is asked for it and what would come of it are kept here
  const [asked, setAsked] = useState<Request | null>(null);
  const [trial, setTrial] = useState<Session | null>(null);
  // what the next change starts from: what is drawn may be a moment older, and a change over that undoes the last one
  const askedNow = useRef<Request | null>(null);
  const newest = () => queries.getQueryData<Session>(['session']) ?? kept;
  const edit = useKeptEdit<Request, Session>({
    rendered: planned ? kept : asked,
    kept: () =>
      (newest().id === null ? askedNow.current : null) ?? { wants: newest().wants, readyAt: newest().readyAt },
    send: (body) =>
      newest().id === null
        ? data(api.POST('/api/session/preview', { body }))
        : data(api.PUT('/api/session', { params: { query: { version: newest().wantsVersion } }, body })),
    taken: (next, request) => {
      if (next.id === null) {
        askedNow.current = request;
        setAsked(request);
        setTrial(next);
      } else queries.setQueryData(['session'], next);
    },
    outdated: () => void queries.invalidateQueries({ queryKey: ['session'] }),
  });
  const request = edit.typed ?? (planned ? null : asked) ?? { wants: kept.wants, readyAt: kept.readyAt };
  const changed = (part: (now: Request) => Partial<Request>) => edit.change((base) => ({ ...base, ...part(base) }));

  const session = planned ? kept : (trial ?? kept);
  const open = openSteps(session);
  const shownKey = (open.find((s) => s.key === chosen) ?? open.find((s) => s.key === session.next?.key))?.key;
  const problem = edit.problem ?? actions.ask.error;
  const { wrong } = wrongOf(problem, [...inTheLine, ...ofTheWorks]);
  // how the bench works lies in a drawer, and may be closed again with something in it that does not do
  const { elsewhere } = wrongOf(problem, inTheLine);
  const failed = actions.tick.error ?? actions.undo.error ?? actions.end.error;
  const other = failed ? sentenceOf(failed) : elsewhere;
  return (
    <>
      {other && (
        <Box mb="3">
          <Notice role="alert">{other}</Notice>
        </Box>
      )}
      <WantsLine session={session} request={request} change={changed} wrong={wrong} people={people} />
      <Grid templateColumns={{ base: 'minmax(0,1fr)', lg: 'minmax(0,7fr) minmax(0,5fr)' }} gap="4" alignItems="start">
        <Grid gap="4">
          {planned && (
            <Panel>
              <NextStep session={session} nowMs={now} actions={actions} chosen={chosen} choose={setChosen} />
            </Panel>
          )}
          <Panel>
            <HeatNow session={session} />
            <HeatCourse session={session} nowMs={now} height={planned ? 145 : 230} />
            <SessionNotices sentences={session.now.notices} />
            <SessionSummary session={session} />
            <WarmTools session={session} />
          </Panel>
        </Grid>
        <Grid gap="4">
          <Panel>
            {planned ? (
              <PlanSteps session={session} shown={shownKey} choose={setChosen}>
                <Button tone="quiet" asChild>
                  <a href="/api/session/plan.ics" download>
                    Plan as a calendar file
                  </a>
                </Button>
                <Button tone="quiet" onClick={() => actions.end.mutate()}>
                  End the session
                </Button>
              </PlanSteps>
            ) : (
              <Proposal
                session={session}
                start={async () => {
                  if (!(await edit.settle())) return;
                  actions.ask.mutate(
                    { request: asked ?? request, version: kept.wantsVersion },
                    {
                      onSuccess: () => {
                        askedNow.current = null;
                        setAsked(null);
                      },
                    },
                  );
                }}
                busy={actions.ask.isPending}
              />
            )}
          </Panel>
          {planned && (
            <Panel>
              <Readings session={session} actions={actions} setLamp={(lamp) => void setLamp(lamp)} />
            </Panel>
          )}
        </Grid>
      </Grid>
    </>
  );
}
