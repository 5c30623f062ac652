import { Box, Flex } from '@chakra-ui/react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { SoundChoice } from '../shared/instruments/SoundChoice';
import { usePullSound } from '../shared/instruments/pullSound';
import { useWakeLock } from '../shared/instruments/useWakeLock';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Key } from '../shared/ui/Key';
import { Button, Notice, PageTitle, Panel, Waiting } from '../shared/ui/elements';
import { PlayScreen } from './PlayScreen';
import { useUnits } from '../shared/units/units';
import { Result } from './Result';
import { controlWords } from './scoreWords';
import { usePractice } from './usePractice';
import { TextLink } from '../shared/ui/TextLink';

/** One lesson: what it teaches, the virtual lever with the instruments, and what it came to. */
export default function LessonPage() {
  const { lesson: key } = useParams();
  return <Lesson key={key} lesson={key!} />;
}

function Lesson({ lesson: key }: { lesson: string }) {
  const queries = useQueryClient();
  const units = useUnits();
  const [search] = useSearchParams();
  const machineId = Number(search.get('machine')) || null;
  const feel = machineId ? `?machine=${machineId}` : '';
  const { data: overview, error } = useQuery({ queryKey: ['practice'], queryFn: () => data(api.GET('/api/practice')) });
  const lesson = overview?.lessons.find((l) => l.key === key);
  const [view, setView] = useState<Schemas['PracticeView'] | null>(null);

  const begin = useMutation({
    mutationFn: () => data(api.POST('/api/practice', { body: { lesson: key, machineId } })),
    onSuccess: (got) => {
      scored.current = false;
      end.reset();
      setView(got);
    },
  });
  const end = useMutation({
    mutationFn: (id: string) => data(api.POST('/api/practice/{id}/end', { params: { path: { id } } })),
    onSuccess: () => {
      setView(null);
      void queries.invalidateQueries({ queryKey: ['practice'] });
    },
  });
  const scored = useRef(false);
  const { mutate: doEnd } = end;
  const finish = useCallback(() => {
    if (!view || scored.current) return;
    scored.current = true;
    doEnd(view.id);
  }, [view, doEnd]);
  const practice = usePractice(view, finish);
  usePullSound(practice?.instrument ?? null, view?.tickSeconds ?? null);
  useWakeLock(view !== null);

  const id = view?.id;
  const path = { params: { path: { id: id ?? '' } } };
  const drops = useMutation({ mutationFn: () => data(api.POST('/api/practice/{id}/drops', path)) });
  const letGo = useMutation({ mutationFn: () => data(api.POST('/api/practice/{id}/let-go', path)) });
  const { mutate: doDrops } = drops;
  const { mutate: doLetGo } = letGo;
  const { mutate: doBegin } = begin;
  useShortcuts(
    'The lesson',
    id
      ? [
          { key: 'd', does: 'Mark first drops', run: doDrops },
          { key: 's', does: 'Let go for good', run: doLetGo },
          { key: 'Escape', does: 'Let go for good', run: doLetGo },
        ]
      : [{ key: 'Enter', does: 'Begin the lesson', run: doBegin }],
  );
  // a lesson that is left is over
  useEffect(() => {
    if (!id) return;
    return () => {
      void api.DELETE('/api/practice/{id}', { params: { path: { id } } });
    };
  }, [id]);

  if (!overview || !lesson) {
    return (
      <>
        <PageTitle title="Practice" />
        {overview ? (
          <Notice role="alert">
            There is no such lesson. <TextLink to="/practice">All lessons</TextLink>
          </Notice>
        ) : (
          <Waiting error={error} />
        )}
      </>
    );
  }

  const problem = begin.error ?? end.error;
  if (view && practice) {
    return (
      <PlayScreen
        name={units.sentence(lesson.name)}
        view={view}
        practice={practice}
        letGo={() => doLetGo()}
        drops={() => doDrops()}
        dropsMarked={drops.isSuccess}
        giveUp={() => setView(null)}
      />
    );
  }

  return (
    <>
      <PageTitle title={units.sentence(lesson.name)} aside={<TextLink to={`/practice${feel}`}>All lessons</TextLink>}>
        {units.sentence(`${lesson.teaches} ${lesson.why}`)}
      </PageTitle>
      {problem && <Notice role="alert">{sentenceOf(problem)}</Notice>}
      {end.data ? (
        <Result result={end.data} name={units.sentence(lesson.name)} feel={feel} again={() => doBegin()} />
      ) : (
        <Panel>
          <Box mb="3">
            <Controls family={lesson.family} />
          </Box>
          <Flex gap="3" wrap="wrap" align="center">
            <Button size="big" tone="strong" onClick={() => doBegin()} disabled={begin.isPending}>
              Begin<Key>enter</Key>
            </Button>
            <SoundChoice />
          </Flex>
        </Panel>
      )}
    </>
  );
}

/** How the lever is moved, before it is. */
function Controls({ family }: { family: Schemas['LessonView']['family'] }) {
  const words = controlWords[family === 'BoilerSpring' ? 'HoldBack' : family === 'HandPump' ? 'Pump' : 'Press'];
  return (
    <>
      <Box fontWeight={650} fontSize="18px" mb="1">
        The lever
      </Box>
      <Box>{words.hand}</Box>
      <Box color="quiet">{words.keys} D marks first drops, S lets go for good.</Box>
    </>
  );
}
