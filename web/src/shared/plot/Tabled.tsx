import { Box } from '@chakra-ui/react';
import { useState, type ReactNode } from 'react';
import { Table } from '../ui/Table';
import { Button } from '../ui/Button';
import type { ChartRows } from './rows';

const buttonRoom = 32;

interface Props {
  /** What the chart shows. */
  label: string;
  /** Height of the chart, px: the table takes its place. */
  height: number;
  table: ChartRows | undefined;
  children: ReactNode;
}

/** A chart with the numbers behind it, one press away, in its own place. */
export function Tabled({ label, height, table, children }: Props) {
  const [asTable, setAsTable] = useState(false);
  if (!table) return children;
  return (
    <Box position="relative">
      {asTable ? (
        <Box height={height - buttonRoom} mb={`${buttonRoom}px`} overflowY="auto">
          <Table
            label={`${label}, as a table`}
            head={table.head}
            rows={table.rows().map((cells, i) => ({ key: String(i), cells }))}
          />
        </Box>
      ) : (
        children
      )}
      <Button
        tone="quiet"
        position="absolute"
        left="0"
        bottom="-8px"
        px="1"
        fontSize="13px"
        fontWeight={400}
        aria-label={`${asTable ? 'Chart' : 'Table'}: ${label}`}
        onClick={() => setAsTable(!asTable)}
      >
        {asTable ? 'Chart' : 'Table'}
      </Button>
    </Box>
  );
}
