import { Box, chakra, Flex } from '@chakra-ui/react';
import { lazy, Suspense, useState } from 'react';
import { Outlet, useLocation } from 'react-router';
import { Recovered } from '../shared/live/Recovered';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Notice } from '../shared/ui/elements';
import { useLiveStatus } from '../shared/live/live';
import { useAnythingSaid } from '../shared/ui/say';
import { Rail } from './Rail';
import { RunStrip } from './RunStrip';
import { useVisitOver, VisitBar } from './Visit';

const Toasts = lazy(() => import('../shared/ui/Toasts'));
const KeyHelp = lazy(() => import('../shared/keys/KeyHelp'));

/** The frame of every page: run strip on top, rail at the left, or a bar at the bottom on a phone. */
export function Shell() {
  const { pathname } = useLocation();
  const pull = pathname.startsWith('/pull') || pathname.startsWith('/practice/');
  const status = useLiveStatus();
  useVisitOver();
  const said = useAnythingSaid();
  const pulling = status.pulls.length > 0 && pull;
  const [help, setHelp] = useState(false);
  useShortcuts('Everywhere', [{ key: '?', does: 'The keys that work here', run: () => setHelp(true) }]);
  return (
    <Flex direction="column" minHeight="100dvh">
      <chakra.a
        href="#main"
        position="absolute"
        left="-9999px"
        _focus={{ left: '8px', top: '8px', zIndex: 10, bg: 'panel', p: '2' }}
      >
        Skip to the page
      </chakra.a>
      <VisitBar />
      <RunStrip />
      <Flex flex="1" direction={{ base: 'column-reverse', md: 'row' }} minHeight={0}>
        <Rail />
        <Box
          as="main"
          id="main"
          flex="1"
          minWidth={0}
          px={{ base: '3', md: '6' }}
          py={pull ? { base: '2', md: '3' } : { base: '3', md: '5' }}
        >
          {!pulling && <Recovered />}
          {status.troubles.map((trouble) => (
            <Box key={trouble} mb="2">
              <Notice role="status">{trouble}</Notice>
            </Box>
          ))}
          <Outlet />
        </Box>
      </Flex>
      {said && (
        <Suspense fallback={null}>
          <Toasts />
        </Suspense>
      )}
      {help && (
        <Suspense fallback={null}>
          <KeyHelp close={() => setHelp(false)} />
        </Suspense>
      )}
    </Flex>
  );
}
