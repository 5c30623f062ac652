import { Box, chakra, Flex } from '@chakra-ui/react';
import { BookOpen, Gauge, Hand, Package, Settings, Wrench } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { Recovered } from '../shared/live/Recovered';
import { useShortcuts } from '../shared/keys/shortcuts';
import { Notice } from '../shared/ui/elements';
import { useLiveStatus } from '../shared/live/live';
import { useAnythingSaid } from '../shared/ui/say';
import { RunStrip } from './RunStrip';
import { useVisitOver, VisitBar } from './Visit';

const Toasts = lazy(() => import('../shared/ui/Toasts'));
const KeyHelp = lazy(() => import('../shared/keys/KeyHelp'));

const RailLink = chakra(NavLink, {
  base: {
    display: 'flex',
    flexDirection: 'column',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '1',
    minHeight: '60px',
    flex: { base: 1, md: 'none' },
    fontSize: { base: '12px', sm: '13px' },
    minWidth: 0,
    color: 'text',
    borderInlineStartWidth: { base: 0, md: '4px' },
    borderTopWidth: { base: '4px', md: 0 },
    borderColor: 'transparent',
    _hover: { bg: 'page' },
    '&.active': { borderColor: 'oxide', bg: 'page' },
  },
});

const places = [
  { to: '/ledger', name: 'Ledger', icon: BookOpen },
  { to: '/shelf', name: 'Shelf', icon: Package },
  { to: '/machines', name: 'Machines', icon: Gauge },
  { to: '/practice', name: 'Practice', icon: Hand },
  { to: '/care', name: 'Care', icon: Wrench },
  { to: '/settings', name: 'Settings', icon: Settings },
];

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
        <Flex
          as="nav"
          aria-label="Other places"
          className="no-print"
          direction={{ base: 'row', md: 'column' }}
          width={{ base: '100%', md: '84px' }}
          flexShrink={0}
          bg="panel"
          borderColor="hairline"
          borderInlineEndWidth={{ base: 0, md: '1px' }}
          borderTopWidth={{ base: '1px', md: 0 }}
          position={{ base: 'sticky', md: 'static' }}
          bottom="0"
          zIndex={2}
        >
          {places.map(({ to, name, icon: Icon }) => (
            <RailLink key={to} to={to}>
              <Icon size={20} aria-hidden="true" />
              {name}
            </RailLink>
          ))}
        </Flex>
        <Box
          as="main"
          id="main"
          flex="1"
          minWidth={0}
          px={{ base: '3', md: '6' }}
          py={pull ? { base: '2', md: '3' } : { base: '4', md: '5' }}
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
