import { Box, chakra } from '@chakra-ui/react';
import type { Schemas } from '../shared/api/client';
import { H2, Panel, Select } from '../shared/ui/elements';

export type Column = Schemas['ImportColumn'];

const roles: Record<Schemas['ColumnRole'], string> = {
  Ignore: 'leave out',
  Time: 'time',
  Pressure: 'pressure',
  Weight: 'weight',
  Temperature: 'water temperature',
  Group: 'group temperature',
  Force: 'hand force',
  Flow: 'flow',
};

interface Props {
  seen: Schemas['ImportPreview'];
  setColumn: (index: number, part: Partial<Column>) => void;
}

/** The first rows of a file, and what its columns are taken for. */
export function ColumnsTable({ seen, setColumn }: Props) {
  return (
    <Panel overflowX="auto" tabIndex={0} role="region" aria-label="Columns of the file">
      <H2>What the columns are</H2>
      <Box fontSize="14px" color="quiet" mb="3">
        {seen.rows} rows, separated by {seen.separator}, decimal {seen.decimalComma ? 'comma' : 'point'},{' '}
        {seen.hasHeader ? 'with' : 'without'} a header.
      </Box>
      <chakra.table borderCollapse="collapse" fontSize="14px">
        <thead>
          <tr>
            {seen.columns.map((c) => (
              <chakra.th
                key={c.index}
                scope="col"
                textAlign="start"
                px="2"
                pb="2"
                minWidth="140px"
                verticalAlign="bottom"
              >
                <Box mb="1">{c.name}</Box>
                <Select
                  aria-label={`${c.name} holds`}
                  value={c.role}
                  onChange={(e) => setColumn(c.index, { role: e.target.value as Column['role'] })}
                >
                  {Object.entries(roles).map(([role, word]) => (
                    <option key={role} value={role}>
                      {word}
                    </option>
                  ))}
                </Select>
                {(seen.units[c.role]?.length ?? 0) > 0 && (
                  <Select
                    mt="1"
                    aria-label={`Unit of ${c.name}`}
                    value={c.unit}
                    onChange={(e) => setColumn(c.index, { unit: e.target.value })}
                  >
                    {seen.units[c.role]!.map((u) => (
                      <option key={u} value={u}>
                        {u}
                      </option>
                    ))}
                  </Select>
                )}
              </chakra.th>
            ))}
          </tr>
        </thead>
        <tbody>
          {seen.firstRows.map((row, i) => (
            <chakra.tr key={i} borderTopWidth="1px" borderColor="hairline">
              {seen.columns.map((c) => (
                <chakra.td key={c.index} px="2" py="1" style={{ fontVariantNumeric: 'tabular-nums' }}>
                  {row[c.index]}
                </chakra.td>
              ))}
            </chakra.tr>
          ))}
        </tbody>
      </chakra.table>
    </Panel>
  );
}
