import { Flex } from '@chakra-ui/react';
import { useEffect } from 'react';
import { Key } from '../shared/ui/Key';
import { Button } from '../shared/ui/elements';
import { ChartSwitch } from './ChartSwitch';
import type { Moment, usePull } from './usePull';

const names: Record<Moment, string> = { drops: 'First drops', ease: 'Ease', blonding: 'Blonding' };

/** What the hand can do to the pull: large keys on the screen, one key each on the keyboard. */
export function PullKeys({ pull, ready }: { pull: ReturnType<typeof usePull>; ready: () => void }) {
  const { stage, act, mark, marked, save, saving } = pull;
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (['SELECT', 'TEXTAREA'].includes(target.tagName)) return;
      if (target instanceof HTMLInputElement && target.type !== 'range') return;
      const key = event.key.toLowerCase();
      if (key === ' ' && !['BUTTON', 'A'].includes(target.tagName)) {
        event.preventDefault();
        if (stage === 'Idle') ready();
        else if (stage === 'Ready') act('begin');
        else if (stage === 'Running') act('stop');
      } else if (stage === 'Running' && key === 's') act('stop');
      else if (stage === 'Running' && key === 'd') mark('drops');
      else if (stage === 'Running' && key === 'e') mark('ease');
      else if (stage === 'Running' && key === 'b') mark('blonding');
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [stage, act, mark, ready]);

  return (
    <Flex gap="2" wrap="wrap" position={{ base: 'sticky', md: 'static' }} bottom="72px" bg="page" py="1">
      {stage === 'Ready' && (
        <>
          <Button size="big" flex="1" tone="strong" onClick={() => act('begin')}>
            Start the clock<Key>space</Key>
          </Button>
          <Button size="big" onClick={() => act('discard')}>
            Not now
          </Button>
        </>
      )}
      {stage === 'Running' && (
        <>
          <Button size="big" tone="strong" flex="2" minWidth="160px" onClick={() => act('stop')}>
            Stop<Key>space</Key>
          </Button>
          {(['drops', 'ease', 'blonding'] as const).map((moment) => (
            <Button
              key={moment}
              size="big"
              flex="1"
              px="2"
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
          <Button size="big" px="3" onClick={() => act('discard')}>
            Throw away
          </Button>
        </>
      )}
      {stage === 'Settling' && (
        <Button size="big" tone="strong" flex="1" onClick={() => save()} disabled={saving}>
          Save it now
        </Button>
      )}
    </Flex>
  );
}
