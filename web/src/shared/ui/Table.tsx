import { Table as KitTable } from '@chakra-ui/react';
import type { ReactNode } from 'react';

interface Props {
  label: string;
  head: readonly string[];
  rows: readonly { key: string; cells: readonly ReactNode[]; strong?: boolean }[];
}

/** A plain table; on a narrow screen it scrolls sideways in itself. */
export function Table({ label, head, rows }: Props) {
  return (
    <KitTable.ScrollArea overflowX="auto" role="region" aria-label={label} tabIndex={0}>
      <KitTable.Root>
        <KitTable.Header>
          <KitTable.Row>
            {head.map((h) => (
              <KitTable.ColumnHeader key={h} scope="col">
                {h}
              </KitTable.ColumnHeader>
            ))}
          </KitTable.Row>
        </KitTable.Header>
        <KitTable.Body>
          {rows.map((row) => (
            <KitTable.Row key={row.key} fontWeight={row.strong ? 650 : undefined}>
              {row.cells.map((cell, i) => (
                <KitTable.Cell key={i} verticalAlign="middle">
                  {cell}
                </KitTable.Cell>
              ))}
            </KitTable.Row>
          ))}
        </KitTable.Body>
      </KitTable.Root>
    </KitTable.ScrollArea>
  );
}
