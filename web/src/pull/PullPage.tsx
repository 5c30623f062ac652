import { Box, chakra, Flex, Grid } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, data, sentenceOf } from '../shared/api/client';
import { Button, Caution, Notice, PageTitle, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { live, useLiveStatus } from '../shell/live';
import { Instruments } from './Instruments';
import { LiveCanvas } from './LiveCanvas';
import { LiveFigures } from './LiveFigures';
import { PressureTape } from './PressureTape';
import { Sentence } from './Sentence';

const settleMs = 3200;

/** The instrument. Everything that moves is written past React. */
export default function PullPage() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const status = useLiveStatus();
  const height = usePlotHeight();
  // a new pull, or a lost frame, asks for the whole state again
  const { data: view, error } = useQuery({
    queryKey: ['pull', status.pullId],
    queryFn: () => data(api.GET('/api/pull')),
    staleTime: Infinity,
    gcTime: 0,
    placeholderData: (before) => before,
    retry: false,
  });
  useRefetchAfterLoss();

  const ready = useMutation({
    mutationFn: () => data(api.POST('/api/pull/ready')),
    onSuccess: (got) => queries.setQueryData(['pull', got.frame.pullId], got),
  });
  const act = useMutation({
    mutationFn: (what: 'begin' | 'stop' | 'discard' | 'drops' | 'ease' | 'blonding') =>
      data(
        what === 'begin'
          ? api.POST('/api/pull/begin')
          : what === 'stop'
            ? api.POST('/api/pull/stop')
            : what === 'discard'
              ? api.POST('/api/pull/discard')
              : api.POST('/api/pull/mark', { body: { moment: what } }),
      ),
  });
  const save = useMutation({
    mutationFn: () => data(api.POST('/api/pull/save')),
    onSuccess: async ({ shotId }) => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await queries.invalidateQueries({ queryKey: ['bench'] });
      await navigate(`/taste/${shotId}`);
    },
  });
  const [marked, setMarked] = useState<string[]>([]);
  const stoppedHere = useRef(false);

  const asked = search.has('ready');
  const { mutate: makeReady } = ready;
  useEffect(() => {
    if (!asked) return;
    setSearch({}, { replace: true });
    makeReady();
  }, [asked, makeReady, setSearch]);

  const { mutate: doAct } = act;
  const { mutate: doSave } = save;
  const stage = status.stage;
  const mark = useCallback(
    (moment: 'drops' | 'ease' | 'blonding') => {
      doAct(moment);
      setMarked((now) => [...now, moment]);
    },
    [doAct],
  );
  const stop = useCallback(() => {
    stoppedHere.current = true;
    doAct('stop');
  }, [doAct]);

  useEffect(() => {
    if (stage === 'Ready') setMarked([]);
    if (stage !== 'Settling' || !stoppedHere.current) return;
    const timer = setTimeout(() => {
      stoppedHere.current = false;
      doSave();
    }, settleMs);
    return () => clearTimeout(timer);
  }, [stage, doSave]);

  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || ['INPUT', 'SELECT', 'TEXTAREA'].includes(target.tagName)) return;
      const key = event.key.toLowerCase();
      const onControl = ['BUTTON', 'A'].includes(target.tagName);
      if (key === ' ' && !onControl) {
        event.preventDefault();
        if (stage === 'Idle') makeReady();
        else if (stage === 'Ready') doAct('begin');
        else if (stage === 'Running') stop();
      } else if (stage === 'Running' && key === 's') stop();
      else if (stage === 'Running' && key === 'd') mark('drops');
      else if (stage === 'Running' && key === 'e') mark('ease');
      else if (stage === 'Running' && key === 'b') mark('blonding');
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [stage, doAct, makeReady, mark, stop]);

  useWakeLock(stage === 'Ready' || stage === 'Running');

  if (!view) {
    return (
      <>
        <PageTitle title="Pull" />
        <Waiting error={error} />
      </>
    );
  }

  const problem = ready.error ?? act.error ?? save.error;
  return (
    <Flex direction="column" gap="3">
      {stage === 'Idle' && (
        <>
          <PageTitle
            title="Pull"
            aside={
              <Link to="/prepare" style={{ textDecoration: 'underline' }}>
                Change the sheet
              </Link>
            }
          >
            {view.machineName}: {number(view.sheet.doseGrams, 1)} g to {number(view.sheet.yieldGrams, 0)} g,{' '}
            {view.plan.name.toLowerCase()}.
          </PageTitle>
          <Grid gap="2">
            {view.cautions.map((c) => (
              <Caution key={c}>{c}</Caution>
            ))}
          </Grid>
          <Button tone="strong" size="big" onClick={() => makeReady()} disabled={ready.isPending}>
            Everything is locked in: make ready
          </Button>
        </>
      )}
      {stage !== 'Idle' && (
        <>
          {stage === 'Settling' ? (
            <Box fontSize={{ base: '22px', md: '34px' }} fontWeight={650} minHeight="44px" role="status">
              Stopped. Leave the cup where it is: the last drops are being weighed.
            </Box>
          ) : (
            <Sentence view={view} />
          )}
          <Grid templateColumns={{ base: 'minmax(0,1fr)', md: '128px minmax(0,1fr) 250px' }} gap={{ base: '3', md: '4' }}>
            <Box display={{ base: 'none', md: 'block' }}>
              <PressureTape view={view} height={height} />
            </Box>
            <Box order={{ base: 2, md: 0 }} minWidth={0}>
              <LiveCanvas view={view} height={height} />
            </Box>
            <Box order={{ base: 1, md: 0 }} minHeight={{ md: `${height}px` }}>
              <LiveFigures view={view} />
            </Box>
          </Grid>
          <Flex gap="2" wrap="wrap" position={{ base: 'sticky', md: 'static' }} bottom="72px" bg="page" py="1">
            {stage === 'Ready' && (
              <>
                <Button size="big" flex="1" tone="strong" onClick={() => doAct('begin')}>
                  Start the clock<Key>space</Key>
                </Button>
                <Button size="big" onClick={() => doAct('discard')}>
                  Not now
                </Button>
              </>
            )}
            {stage === 'Running' && (
              <>
                <Button size="big" tone="strong" flex="2" minWidth="160px" onClick={stop}>
                  Stop<Key>space</Key>
                </Button>
                {(['drops', 'ease', 'blonding'] as const).map((moment) => (
                  <Button
                    key={moment}
                    size="big"
                    flex="1"
                    px="2"
                    onClick={() => mark(moment)}
                    aria-pressed={marked.includes(moment)}
                  >
                    {marked.includes(moment) ? '\u2713 ' : ''}
                    {{ drops: 'First drops', ease: 'Ease', blonding: 'Blonding' }[moment]}
                    <Key>{moment[0]}</Key>
                  </Button>
                ))}
                <Button size="big" onClick={() => doAct('discard')}>
                  Throw away
                </Button>
              </>
            )}
            {stage === 'Settling' && (
              <Button size="big" tone="strong" flex="1" onClick={() => doSave()} disabled={save.isPending}>
                Save it now
              </Button>
            )}
          </Flex>
        </>
      )}
      {problem && <Notice role="alert">{sentenceOf(problem)}</Notice>}
      {status.notices.map((notice) => (
        <Notice key={notice} role="status">
          {notice}
        </Notice>
      ))}
      {stage !== 'Running' && <Instruments devices={status.devices} />}
    </Flex>
  );
}

/** The key that does the same, for those who have one. */
function Key({ children }: { children: ReactNode }) {
  return (
    <chakra.kbd
      display={{ base: 'none', lg: 'inline' }}
      fontSize="14px"
      fontWeight={500}
      borderWidth="1px"
      borderRadius="small"
      px="1.5"
      aria-hidden="true"
    >
      {children}
    </chakra.kbd>
  );
}

/** Height of the plot that leaves room for sentence and keys on this window. */
function usePlotHeight() {
  const of = () => Math.max(250, Math.min(1100, window.innerHeight - (window.innerWidth < 768 ? 530 : 252)));
  const [height, setHeight] = useState(of);
  useEffect(() => {
    const follow = () => setHeight(of());
    window.addEventListener('resize', follow);
    return () => window.removeEventListener('resize', follow);
  }, []);
  return height;
}

/** Asks for the whole pull again when frames went missing, e.g. after a sleep or a lost connection. */
function useRefetchAfterLoss() {
  const queries = useQueryClient();
  useEffect(() => {
    let last: number | null = null;
    const stop = live.onFrame((frame) => {
      if (last !== null && frame.sequence !== last + 1) void queries.invalidateQueries({ queryKey: ['pull'] });
      last = frame.sequence;
    });
    return () => {
      stop();
    };
  }, [queries]);
}

/** Keeps the screen awake while a pull is on, where the system allows it. */
function useWakeLock(wanted: boolean) {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | undefined;
    let over = false;
    void navigator.wakeLock.request('screen').then(
      (got) => {
        lock = got;
        if (over) void got.release();
      },
      () => undefined,
    );
    return () => {
      over = true;
      void lock?.release();
    };
  }, [wanted]);
}
