import { chakra, Flex } from '@chakra-ui/react';
import { BookOpen, Gauge, Hand, Package, Settings, Wrench } from 'lucide-react';
import { NavLink } from 'react-router';
import { useAfterFirst } from '../shared/ui/useAfterFirst';

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

/** The way to what is not today's session: a rail at the left, or a bar at the bottom on a phone. */
export function Rail() {
  // the page itself comes first: its room is kept
  const links = useAfterFirst();
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
          </RailLink>
        ))}
    </Flex>
  );
}
