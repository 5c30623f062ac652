import { Flex } from '@chakra-ui/react';
import { Link } from 'react-router';
import type { LivePull } from '../shared/live/live';

const words = { Idle: '', Ready: 'ready', Running: 'under way', Settling: 'last drops' } as const;

/** Two brewers at two machines: which of the pulls this screen shows. */
export function PullTabs({ pulls, shown }: { pulls: readonly LivePull[]; shown: string | null }) {
  if (pulls.length < 2) return null;
  return (
    <Flex as="nav" aria-label="Pulls under way" gap="2" wrap="wrap">
      {pulls.map((p) => (
        <Link
          key={p.id}
          to={`/pull?pull=${p.id}`}
          replace
          aria-current={p.id === shown ? 'page' : undefined}
          style={{
            minHeight: 48,
            display: 'inline-flex',
            alignItems: 'center',
            padding: '0 16px',
            border: `${p.id === shown ? 2 : 1}px solid var(--rs-colors-${p.id === shown ? 'text' : 'edge'})`,
            borderRadius: 3,
            fontWeight: p.id === shown ? 650 : 400,
          }}
        >
          {p.machineName}, {words[p.stage]}
        </Link>
      ))}
    </Flex>
  );
}
