import { Box, Flex } from '@chakra-ui/react';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Check } from '../shared/ui/Check';
import { Button } from '../shared/ui/elements';
import { Modal } from '../shared/ui/Modal';
import { allColumns, columnNames, usualColumns, type Column } from './columns';

interface Props {
  columns: readonly Column[];
  change: (columns: readonly Column[]) => void;
  close: () => void;
}

/** Which columns the ledger shows, and in which order. */
export function ColumnChoice({ columns, change, close }: Props) {
  const move = (at: number, by: number) => {
    const next = [...columns];
    next.splice(at + by, 0, ...next.splice(at, 1));
    change(next);
  };
  const rest = allColumns.filter((c) => !columns.includes(c));
  return (
    <Modal
      title="Columns"
      close={close}
      foot={
        <Flex gap="2">
          <Button onClick={() => change(usualColumns)}>Usual columns</Button>
          <Button tone="strong" onClick={close}>
            Close
          </Button>
        </Flex>
      }
    >
      <Box as="ol" listStyleType="none" aria-label="Columns in their order">
        {columns.map((column, i) => (
          <Flex as="li" key={column} align="center" gap="2" minHeight="44px">
            <Box flex="1">
              <Check
                checked
                disabled={columns.length === 1}
                onChange={() => change(columns.filter((c) => c !== column))}
              >
                {columnNames[column]}
              </Check>
            </Box>
            <Button
              tone="quiet"
              px="2"
              aria-label={`Move ${columnNames[column]} forward`}
              disabled={i === 0}
              onClick={() => move(i, -1)}
            >
              <ArrowUp size={18} aria-hidden="true" />
            </Button>
            <Button
              tone="quiet"
              px="2"
              aria-label={`Move ${columnNames[column]} back`}
              disabled={i === columns.length - 1}
              onClick={() => move(i, 1)}
            >
              <ArrowDown size={18} aria-hidden="true" />
            </Button>
          </Flex>
        ))}
      </Box>
      {rest.length > 0 && (
        <Box as="ul" listStyleType="none" aria-label="Columns not shown" borderTopWidth="1px" borderColor="hairline">
          {rest.map((column) => (
            <Flex as="li" key={column} align="center" minHeight="44px">
              <Check checked={false} onChange={() => change([...columns, column])}>
                {columnNames[column]}
              </Check>
            </Flex>
          ))}
        </Box>
      )}
    </Modal>
  );
}
