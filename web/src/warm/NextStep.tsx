import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import type { Schemas } from '../shared/api/client';
import { minutes, timeOfDay } from '../shared/clock';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Button, Caution, H2, Reading, Select } from '../shared/ui/elements';
import { useUnits } from '../shared/units/units';
import type { useSessionActions } from './useSessionActions';

type Session = Schemas['SessionView'];
type Step = Session['steps'][number];

/** Steps whose length matters to the heat are begun and ended; the others are just ticked. */
const timed = new Set<Step['kind']>(['Preheat', 'Cloth', 'Rest', 'Cool', 'Depressurise', 'Boil']);

interface Props {
  session: Session;
  nowMs: number;
  actions: ReturnType<typeof useSessionActions>;
}

/** What to do now: the step, its countdown, what can hurt, and one key to tick it off. */
export function NextStep({ session, nowMs, actions }: Props) {
  const units = useUnits();
  const open = session.steps.filter((s) => s.state === 'Due' || s.state === 'UnderWay');
  const [chosen, setChosen] = useState<string | null>(null);
  const [ago, setAgo] = useState(0);
  const shown = open.find((s) => s.key === chosen) ?? open.find((s) => s.key === session.next?.key);
  const busy = actions.tick.isPending;
  const tick = (what: 'begin' | 'done' | 'skip') => {
    if (!shown || busy) return;
    setChosen(null);
    setAgo(0);
    actions.tick.mutate({ do: what, key: shown.key, secondsAgo: ago * 60 });
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
  const done = session.steps.filter((s) => s.state === 'Done' || s.state === 'Skipped');
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
        <Box fontSize="22px" fontWeight={650} lineHeight={1.2} data-testid="step-title">
          {shown.title}
        </Box>
        <Box textAlign="end" flexShrink={0} role="timer" aria-label={underWay ? 'Time left' : 'Time until it is due'}>
          <Reading style={{ fontSize: '40px', lineHeight: 1 }}>
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
      <Flex gap="2" mt="4" wrap="wrap">
        {timed.has(shown.kind) && !underWay ? (
          <Button tone="strong" size="big" flex="1" disabled={busy} onClick={() => tick('begin')}>
            Begin (T)
          </Button>
        ) : (
          <Button tone="strong" size="big" flex="1" disabled={busy} onClick={() => tick('done')}>
            Done (T)
          </Button>
        )}
        <Flex direction="column">
          <Button tone="quiet" disabled={busy} onClick={() => tick('skip')}>
            Leave it out
          </Button>
          {session.lastTick !== null && (
            <Button
              tone="quiet"
              disabled={actions.undo.isPending}
              onClick={() => actions.undo.mutate(session.lastTick!)}
            >
              Take back
            </Button>
          )}
        </Flex>
      </Flex>
      <Flex as="label" gap="2" align="center" mt="2" fontSize="14px" color="quiet">
        It was
        <Select
          value={ago}
          onChange={(e) => setAgo(Number(e.target.value))}
          width="auto"
          minHeight="36px"
          fontSize="14px"
        >
          {[0, 1, 2, 3, 5, 8, 10, 15, 20, 25, 30].map((m) => (
            <option key={m} value={m}>
              {m === 0 ? 'just now' : `${m} min ago`}
            </option>
          ))}
        </Select>
      </Flex>
      <Box as="ol" mt="4" aria-label="Steps still to do" listStyleType="none">
        {open
          .filter((s) => s !== shown)
          .map((s) => (
            <StepRow key={s.key} step={s} originMs={origin} choose={() => setChosen(s.key)} />
          ))}
      </Box>
      {done.length > 0 && (
        <details>
          <summary style={{ cursor: 'pointer', minHeight: 32, fontSize: 14 }}>Done so far ({done.length})</summary>
          <Box as="ol" aria-label="Steps done" listStyleType="none">
            {done.map((s) => (
              <Flex as="li" key={s.key} gap="3" fontSize="14px" color="quiet" py="0.5">
                <Reading style={{ width: 44 }}>{timeOfDay(origin + (s.startSeconds + s.seconds) * 1000)}</Reading>
                <Box>
                  {s.title}
                  {s.state === 'Skipped' ? ', left out' : ''}
                </Box>
              </Flex>
            ))}
          </Box>
        </details>
      )}
    </>
  );
}

function StepRow({ step, originMs, choose }: { step: Step; originMs: number; choose: () => void }) {
  return (
    <Box as="li" borderTopWidth="1px" borderColor="hairline">
      <button
        type="button"
        onClick={choose}
        style={{
          display: 'flex',
          gap: 12,
          width: '100%',
          minHeight: 34,
          alignItems: 'center',
          textAlign: 'start',
          cursor: 'pointer',
        }}
      >
        <Reading style={{ width: 44, fontSize: 15 }}>{timeOfDay(originMs + step.startSeconds * 1000)}</Reading>
        <span style={{ flex: 1, minWidth: 0 }}>
          {step.title}
          {step.state === 'UnderWay' ? ' (under way)' : ''}
        </span>
        {step.seconds >= 20 && (
          <span style={{ fontSize: 13 }}>
            {minutes(step.seconds)}
            {step.handsFree ? ' alongside' : ''}
          </span>
        )}
      </button>
    </Box>
  );
}
