import { Box, chakra, Flex, VisuallyHidden } from '@chakra-ui/react';
import { BookOpen, Gauge, Hand, Package, Settings, Wrench } from 'lucide-react';
import { NavLink } from 'react-router';
import { useCareDue } from '../shared/api/queries';
import { useAfterFirst } from '../shared/ui/useAfterFirst';

const RailLink = chakra(NavLink, {
  base: {
    display: 'flex',
    position: 'relative',
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

/** The way to what is not today's session: a rail at the left, or a bar at the bottom on a phone. */
export function Rail() {
  // the page itself comes first: its room is kept
  const links = useAfterFirst();
  const due = useCareDue().data?.length ?? 0;
  return (
    <Flex
      as="nav"
      aria-label="Other places"
      className="no-print"
      direction={{ base: 'row', md: 'column' }}
      width={{ base: '100%', md: '84px' }}
      minHeight="61px"
      flexShrink={0}
      bg="panel"
      borderColor="hairline"
      borderInlineEndWidth={{ base: 0, md: '1px' }}
      borderTopWidth={{ base: '1px', md: 0 }}
      position={{ base: 'sticky', md: 'static' }}
      bottom="0"
      zIndex={2}
    >
      {links &&
        places.map(({ to, name, icon: Icon }) => (
          <RailLink key={to} to={to}>
            <Icon size={20} aria-hidden="true" />
            {name}
            {to === '/care' && due > 0 && <Due count={due} />}
          </RailLink>
        ))}
    </Flex>
  );
}

/** How many tasks of care are due, at the corner of the drawing of the link. */
function Due({ count }: { count: number }) {
  return (
    <Box
      as="span"
      position="absolute"
      top="5px"
      left="calc(50% + 6px)"
      minWidth="18px"
      px="1"
      textAlign="center"
      fontSize="12px"
      lineHeight="18px"
      fontWeight={650}
      borderRadius="9px"
      bg="oxide"
      color="onOxide"
    >
      <VisuallyHidden>, </VisuallyHidden>
      {count}
      <VisuallyHidden>{count === 1 ? ' task is due' : ' tasks are due'}</VisuallyHidden>
    </Box>
  );
}
