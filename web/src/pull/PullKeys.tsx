import { chakra, Flex } from '@chakra-ui/react';
import { useEffect, type ReactNode } from 'react';
import { Button } from '../shared/ui/elements';
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
            <Button key={moment} size="big" flex="1" px="2" onClick={() => mark(moment)} aria-pressed={marked.includes(moment)}>
              {marked.includes(moment) ? '\u2713 ' : ''}
              {names[moment]}
              <Key>{moment[0]}</Key>
            </Button>
          ))}
          <Button size="big" onClick={() => act('discard')}>
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

/** The key that does the same, for those who have one. */
export function Key({ children }: { children: ReactNode }) {
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
