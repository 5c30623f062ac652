import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { api, data, sentenceOf } from '../shared/api/client';
import { Button, HiddenTitle, Notice, PageTitle, Waiting } from '../shared/ui/elements';
import { number } from '../shared/units/units';
import { useLiveStatus } from '../shared/live/live';
import { CheckList } from '../shared/ui/CheckList';
import { InstrumentScreen } from '../shared/instruments/InstrumentScreen';
import { Instruments } from './Instruments';
import { LateNotice } from './LateNotice';
import { Needle } from './Needle';
import { PullKeys } from './PullKeys';
import { PullTabs } from './PullTabs';
import { Sentence } from '../shared/instruments/Sentence';
import { SoundChoice } from '../shared/instruments/SoundChoice';
import { instrumentOf } from '../shared/instruments/instrument';
import { usePullSound } from '../shared/instruments/pullSound';
import { usePull } from './usePull';
import { keysHeight } from '../shared/instruments/useRoom';
import { useWakeLock } from '../shared/instruments/useWakeLock';
import { TextLink } from '../shared/ui/TextLink';

/** The instrument. Everything that moves is written past React. */
export default function PullPage() {
  const queries = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const status = useLiveStatus();
  const wanted = search.get('pull');
  const mine = status.pulls.find((p) => p.id === wanted) ?? (wanted ? undefined : status.pulls.at(-1));
  const pull = usePull(mine, status.connected !== false);
  const { stage, view, id } = pull;

  const ready = useMutation({
    mutationFn: (sheetVersion: number) => data(api.POST('/api/pull/ready', { body: { sheetVersion } })),
    onError: () => {
      // the sheet as it is now is shown beside the reason
      void queries.invalidateQueries({ queryKey: ['pull'] });
      void queries.invalidateQueries({ queryKey: ['prepare'] });
    },
    onSuccess: (got) => {
      queries.setQueryData(['pull', got.frame.pullId], got);
      setSearch({ pull: got.frame.pullId! }, { replace: true });
    },
  });
  const { mutate: makeReady } = ready;
  // Prepare says which version of the sheet was seen there
  const asked = search.get('ready');
  useEffect(() => {
    if (asked === null) return;
    setSearch({}, { replace: true });
    if (asked !== '') makeReady(Number(asked));
  }, [asked, makeReady, setSearch]);

  // another screen kept this pull: this one follows it to the shot
  const watched = useRef<string | null>(null);
  const { show } = pull;
  useEffect(() => {
    if (id) watched.current = id;
    if (!status.kept || status.kept.pullId !== watched.current || id) return;
    watched.current = null;
    void show(status.kept.shotId);
  }, [status.kept, id, show]);
  // a pull that is gone is asked for no longer
  const known = wanted !== null && status.connected === true && !ready.isPending;
  const gone = known && status.pulls.length === 0 && !watched.current;
  useEffect(() => {
    if (gone) setSearch({}, { replace: true });
  }, [gone, setSearch]);

  const instrument = useMemo(() => (view ? instrumentOf(view) : null), [view]);
  usePullSound(stage === 'Running' || stage === 'Ready' ? instrument : null, view?.tickSeconds ?? null);
  useWakeLock(stage === 'Ready' || stage === 'Running');

  if (!view || !instrument) {
    return (
      <>
        <PageTitle title="Pull" />
        <Waiting error={pull.error} />
      </>
    );
  }

  const problem = ready.error ?? pull.problem;
  const readyNow = () => ready.isPending || makeReady(view.sheetVersion);
  const streaming = status.present.some(
    (d) => !d.silent && d.channels.includes('Pressure') && mine?.devices.includes(d.name),
  );
  const needle = id !== null && view.needleToFollow && !streaming && (stage === 'Ready' || stage === 'Running');
  return (
    <Flex direction="column" gap="2">
      <PullTabs pulls={status.pulls} shown={id} />
      {stage === 'Idle' && (
        <>
          <PageTitle title="Pull" aside={<TextLink to="/prepare">Change the sheet</TextLink>}>
            {view.machineName}: {number(view.sheet.doseGrams, 1)} g to {number(view.sheet.yieldGrams, 0)} g,{' '}
            {view.plan.name.toLowerCase()}.
          </PageTitle>
          <CheckList title="Before any pressure" checks={view.before} />
          <Button tone="strong" size="big" onClick={readyNow} disabled={ready.isPending}>
            Everything is locked in: make ready
          </Button>
        </>
      )}
      {stage !== 'Idle' && (
        <>
          <HiddenTitle title="Pull" />
          {pull.unsaved ? (
            <Unsaved pull={pull} />
          ) : stage === 'Settling' ? (
            <Box
              fontSize={{ base: '21px', md: '32px' }}
              fontWeight={650}
              minHeight={{ base: '84px', md: '88px' }}
              role="status"
            >
              Stopped. Leave the cup where it is: the last drops are being weighed.
            </Box>
          ) : (
            <Sentence view={instrument} />
          )}
          <InstrumentScreen
            view={instrument}
            handElsewhere={needle}
            below={keysHeight + (needle ? 92 : 0)}
            instead={
              stage === 'Ready' ? (
                <CheckList title="Before any pressure" checks={view.before} />
              ) : stage === 'Settling' ? (
                <CheckList title="Now" checks={view.after} />
              ) : undefined
            }
          />
          {needle && <Needle pullId={id} view={instrument} />}
          <PullKeys pull={pull} ready={readyNow} />
        </>
      )}
      {stage === 'Idle' && <PullKeys pull={pull} ready={readyNow} />}
      {id !== null && pull.waiting > 0 && <LateNotice pullId={id} running={stage === 'Running'} />}
      {problem && !pull.unsaved && <Notice role="alert">{sentenceOf(problem)}</Notice>}
      {pull.binned !== null && (
        <Flex gap="3" align="center" wrap="wrap">
          <Notice role="status">Deleted: it is in the bin as shot {pull.binned}.</Notice>
          <Button onClick={() => pull.takeBack(pull.binned!)}>Restore</Button>
        </Flex>
      )}
      {mine?.notices.map((notice) => (
        <Notice key={notice} role="status">
          {notice}
        </Notice>
      ))}
      {(stage === 'Running' || stage === 'Settling') && !pull.unsaved && (
        <Flex justify="flex-end">
          <Button tone="quiet" minHeight="64px" onClick={() => pull.discard(false)}>
            Delete this pull
          </Button>
        </Flex>
      )}
      {stage !== 'Running' && (
        <Flex gap="5" wrap="wrap" justify="space-between" align="center">
          <Instruments pulls={status.pulls} shown={id} waterGrams={view.waterGrams} />
          <SoundChoice />
        </Flex>
      )}
    </Flex>
  );
}

/** A pull that could not be stored is still whole: it can be tried again, taken along as a file, or let go of. */
function Unsaved({ pull }: { pull: ReturnType<typeof usePull> }) {
  return (
    <Flex gap="2" wrap="wrap" align="center" minHeight="88px" role="alert">
      <Box flex="1 1 420px">
        <Box fontSize="20px" fontWeight={650}>
          {sentenceOf(pull.problem)}
        </Box>
        The pull is not lost: it stays here until it is saved. Make room and save it, or take its trace along.
      </Box>
      <Button tone="strong" onClick={() => pull.save()} disabled={pull.saving}>
        Retry
      </Button>
      <Button asChild>
        <a href={`/api/pull/trace.csv?pull=${pull.id}`} download>
          Trace as CSV
        </a>
      </Button>
      <Button tone="quiet" onClick={() => pull.discard(true)}>
        Delete for good
      </Button>
    </Flex>
  );
}
