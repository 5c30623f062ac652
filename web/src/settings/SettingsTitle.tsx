import { chakra, Flex } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import { PageTitle } from '../shared/ui/elements';

const Leaf = chakra(NavLink, {
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    minHeight: '44px',
    px: '3',
    color: 'text',
    borderBottomWidth: '3px',
    borderColor: 'transparent',
    _hover: { bg: 'panel' },
    '&.active': { borderColor: 'oxide', fontWeight: 650 },
  },
});

const leaves = [
  ['/settings', 'Bench'],
  ['/settings/network', 'Home network'],
  ['/settings/storage', 'Storage and backups'],
  ['/guide', 'Guide'],
] as const;

/** Heading of a page of the settings, with the way to the others. */
export function SettingsTitle({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <>
      <PageTitle title={title} tight>
        {children}
      </PageTitle>
      <Flex as="nav" aria-label="Settings" wrap="wrap" mb="4" borderBottomWidth="1px" borderColor="hairline">
        {leaves.map(([to, name]) => (
          <Leaf key={to} to={to} end>
            {name}
          </Leaf>
        ))}
      </Flex>
    </>
  );
}
