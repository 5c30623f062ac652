import { Box, chakra, Flex } from '@chakra-ui/react';
import { useId, useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { minutes, timeOfDay } from '../shared/clock';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Button, Caution, H2, Reading, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import { openSteps } from './steps';
import type { useSessionActions } from './useSessionActions';

type Session = Schemas['SessionView'];
type Step = Session['steps'][number];

/** Steps whose length matters to the heat are begun and ended; the others are just ticked. */
const timed = new Set<Step['kind']>(['Preheat', 'Cloth', 'Rest', 'Cool', 'Depressurise', 'Boil']);

interface Props {
  session: Session;
  nowMs: number;
  actions: ReturnType<typeof useSessionActions>;
  /** The step that was asked for instead of the next one. */
  chosen: string | null;
  choose: (key: string | null) => void;
}

/** What to do now: the step, its countdown, what can hurt, and one key to tick it off. */
export function NextStep({ session, nowMs, actions, chosen, choose }: Props) {
  const units = useUnits();
  const open = openSteps(session);
  const [ago, setAgo] = useState(0);
  const agoId = useId();
  const shown = open.find((s) => s.key === chosen) ?? open.find((s) => s.key === session.next?.key);
  const busy = actions.tick.isPending;
  const tick = (what: 'begin' | 'done' | 'skip') => {
    if (!shown || busy) return;
    // the step stays in view until it is known to be kept
    actions.tick.mutate(
      { do: what, key: shown.key, secondsAgo: ago * 60 },
      {
        onSuccess: () => {
          choose(null);
          setAgo(0);
        },
      },
    );
  };

  const begins = shown !== undefined && timed.has(shown.kind) && shown.state === 'Due';
  useShortcuts(
    'The session',
    shown
      ? [
          {
            key: 't',
            does: begins ? 'Begin the step' : 'Tick the step off',
            run: () => tick(begins ? 'begin' : 'done'),
          },
        ]
      : [],
  );

  const origin = Date.parse(session.originAt);
  if (!shown) {
    return (
      <>
        <H2>All done</H2>
        <Box mb="3">Everything is rinsed and off. What was read today is kept for the machine&rsquo;s heat.</Box>
        <Button tone="strong" onClick={() => actions.end.mutate()}>
          End the session
        </Button>
      </>
    );
  }
  const startMs = origin + shown.startSeconds * 1000;
  const endMs = startMs + shown.seconds * 1000;
  const underWay = shown.state === 'UnderWay';
  const wait = underWay ? endMs - nowMs : startMs - nowMs;
  return (
    <>
      <Flex justify="space-between" align="baseline" gap="3">
        <H2 mb="1">{underWay ? 'Under way' : wait > 2000 ? 'Next' : 'Now'}</H2>
        <Box fontSize="14px" color="quiet">
          {timeOfDay(startMs)}
          {shown.seconds >= 20 ? `, takes ${minutes(shown.seconds)} min` : ''}
        </Box>
      </Flex>
      <Flex gap="4" align="flex-start" justify="space-between">
        <Box fontSize="26px" fontWeight={650} lineHeight={1.2} data-testid="step-title">
          {shown.title}
        </Box>
        <Box textAlign="end" flexShrink={0} role="timer" aria-label={underWay ? 'Time left' : 'Time until it is due'}>
          <Reading fontSize="48px" lineHeight={1}>
            {wait < -1000 ? '+' : ''}
            {minutes(Math.abs(wait) / 1000)}
          </Reading>
          <Box fontSize="13px" color="quiet">
            {underWay ? (wait > 0 ? 'min left' : 'min over') : wait > 0 ? 'min until due' : 'min since due'}
          </Box>
        </Box>
      </Flex>
      <Box mt="2">{units.sentence(shown.detail)}</Box>
      {shown.caution && (
        <Box mt="3">
          <Caution>{shown.caution}</Caution>
        </Box>
      )}
      <Flex gap="3" mt="3" wrap="wrap" align="center" fontSize="14px">
        <Button
          tone="strong"
          size="big"
          minHeight="60px"
          flex="1 0 240px"
          disabled={busy}
          onClick={() => tick(begins ? 'begin' : 'done')}
        >
          {begins ? 'Begin (T)' : 'Done (T)'}
        </Button>
        <chakra.label htmlFor={agoId} color="quiet">
          It was
        </chakra.label>
        <Box width="140px">
          <Select id={agoId} value={ago} onChange={(e) => setAgo(Number(e.target.value))} fontSize="14px">
            {[0, 1, 2, 3, 5, 8, 10, 15, 20, 25, 30].map((m) => (
              <option key={m} value={m}>
                {m === 0 ? 'just now' : `${m} min ago`}
              </option>
            ))}
          </Select>
        </Box>
        <Button tone="quiet" disabled={busy} onClick={() => tick('skip')}>
          Skip
        </Button>
        {session.lastTick !== null && (
          <Button tone="quiet" disabled={actions.undo.isPending} onClick={() => actions.undo.mutate(session.lastTick!)}>
            Undo
          </Button>
        )}
      </Flex>
    </>
  );
}
