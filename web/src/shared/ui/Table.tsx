import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  label: string;
  head: readonly string[];
  rows: readonly { key: string; cells: readonly ReactNode[]; strong?: boolean }[];
}

const Cell = chakra('td', {
  base: {
    py: '2',
    pe: '3',
    borderTopWidth: '1px',
    borderColor: 'hairline',
    verticalAlign: 'top',
    fontVariantNumeric: 'tabular-nums',
  },
});

/** A plain table; on a narrow screen it scrolls sideways in itself. */
export function Table({ label, head, rows }: Props) {
  return (
    <Box overflowX="auto" role="region" aria-label={label} tabIndex={0}>
      <table style={{ width: '100%', borderCollapse: 'collapse', fontSize: 15 }}>
        <thead>
          <tr>
            {head.map((h) => (
              <chakra.th
                key={h}
                scope="col"
                textAlign="start"
                fontSize="13px"
                fontWeight={500}
                color="quiet"
                pe="3"
                pb="1"
                verticalAlign="bottom"
              >
                {h}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.key} style={row.strong ? { fontWeight: 650 } : undefined}>
              {row.cells.map((cell, i) => (
                <Cell key={i}>{cell}</Cell>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
