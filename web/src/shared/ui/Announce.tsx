import { chakra } from '@chakra-ui/react';
import { useSettled } from '../edit/useSettled';

const pauseMs = 1000;

/** Tells those who listen to the page what has changed, in one sentence, once they pause. */
export function Announce({ children }: { children: string }) {
  const said = useSettled(children, pauseMs);
  return (
    <chakra.span srOnly aria-live="polite">
      {said}
    </chakra.span>
  );
}
