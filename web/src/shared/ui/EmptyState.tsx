import { Box, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { ink } from '../../theme/system';
import { H2, Panel } from './elements';

interface Props {
  title: string;
  /** What this place is for. */
  children: ReactNode;
  /** The one thing to do. */
  action: ReactNode;
}

/** An empty place says what it is for, with a drawing and one thing to do. */
export function EmptyState({ title, children, action }: Props) {
  return (
    <Panel>
      <Flex gap="5" align="center" wrap="wrap">
        <SpringAtRest />
        <Box flex="1 1 280px" maxWidth="60ch">
          <H2 mb="1">{title}</H2>
          <Box mb="3">{children}</Box>
          {action}
        </Box>
      </Flex>
    </Panel>
  );
}

const turns = 5;

/** A spring that nobody has cocked yet. */
function SpringAtRest() {
  const coil = Array.from({ length: turns * 2 + 1 }, (_, i) => `${i % 2 ? 66 : 26} ${22 + (i * 84) / (turns * 2)}`);
  return (
    <svg width="92" height="128" viewBox="0 0 92 128" aria-hidden="true">
      <path d={`M46 6V18M14 18H78M14 110H78`} stroke={ink('text')} strokeWidth="2.4" fill="none" />
      <path d={`M46 18L${coil.join('L')}L46 110`} stroke={ink('oxide')} strokeWidth="2.4" fill="none" />
      <path d="M24 110V122H68V110" stroke={ink('text')} strokeWidth="2.4" fill="none" />
    </svg>
  );
}
