import { Flex } from '@chakra-ui/react';
import { useShortcuts, type Shortcut } from '../shared/keys/shortcuts';
import { Key } from '../shared/ui/Key';
import { Button } from '../shared/ui/elements';
import { ChartSwitch } from '../shared/instruments/ChartSwitch';
import type { Moment, usePull } from './usePull';

const names: Record<Moment, string> = { drops: 'First drops', ease: 'Ease', blonding: 'Blonding' };
const moments = ['drops', 'ease', 'blonding'] as const;

/** What the hand can do to the pull: large keys on the screen, one key each on the keyboard. */
export function PullKeys({ pull, ready }: { pull: ReturnType<typeof usePull>; ready: () => void }) {
  const { stage, act, mark, marked, save, saving, discard, unsaved } = pull;
  const keys: Record<typeof stage, Shortcut[]> = {
    Idle: [{ key: ' ', does: 'Make the pull ready', run: ready }],
    Ready: [{ key: ' ', does: 'Start the clock', run: () => act('begin') }],
    Running: [
      { key: ' ', does: 'Stop the pull', run: () => act('stop') },
      { key: 's', does: 'Stop the pull', run: () => act('stop') },
      ...moments.map((m) => ({ key: m[0]!, does: `Mark: ${names[m].toLowerCase()}`, run: () => mark(m) })),
    ],
    Settling: [],
  };
  useShortcuts('The pull', keys[stage]);

  return (
    <Flex gap="2" wrap="wrap" position={{ base: 'sticky', md: 'static' }} bottom="72px" bg="page" py="1">
      {stage === 'Ready' && (
        <>
          <Button size="big" flex="1" tone="strong" onClick={() => act('begin')}>
            Start the clock<Key>space</Key>
          </Button>
          <Button size="big" onClick={() => discard(false)}>
            Cancel
          </Button>
        </>
      )}
      {stage === 'Running' && (
        <>
          <Button size="big" tone="strong" flex="2" minWidth="120px" onClick={() => act('stop')}>
            Stop<Key>space</Key>
          </Button>
          {moments.map((moment) => (
            <Button
              key={moment}
              size="big"
              flex="1"
              px="2"
              fontSize={{ base: '17px', lg: '22px' }}
              whiteSpace={{ md: 'nowrap' }}
              onClick={() => mark(moment)}
              aria-pressed={marked.includes(moment)}
            >
              {marked.includes(moment) ? '\u2713 ' : ''}
              {names[moment]}
              <Key>{moment[0]}</Key>
            </Button>
          ))}
          <ChartSwitch />
        </>
      )}
      {stage === 'Settling' && !unsaved && (
        <Button size="big" tone="strong" flex="1" onClick={() => save()} disabled={saving}>
          Save it now
        </Button>
      )}
    </Flex>
  );
}
