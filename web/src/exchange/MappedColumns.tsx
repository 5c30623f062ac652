import { Box, chakra } from '@chakra-ui/react';
import { H2, Panel, Select } from '../shared/ui/elements';

interface Mapped<Role extends string> {
  index: number;
  name: string;
  role: Role;
  unit: string;
}

interface Props<Role extends string> {
  /** The first rows of the file, and the units that go with each role. */
  seen: { firstRows: readonly (readonly string[])[]; units: Record<string, readonly string[]> };
  columns: readonly Mapped<Role>[];
  /** What each role is called. */
  words: Record<Role, string>;
  note: string;
  setColumn: (index: number, part: { role?: Role; unit?: string }) => void;
}

/** The first rows of a file, and what its columns are taken for. */
export function MappedColumns<Role extends string>({ seen, columns, words, note, setColumn }: Props<Role>) {
  return (
    <Panel overflowX="auto" tabIndex={0} role="region" aria-label="Columns of the file">
      <H2>Match the columns</H2>
      <Box fontSize="14px" color="quiet" mb="3">
        {note}
      </Box>
      <chakra.table borderCollapse="collapse" fontSize="14px">
        <thead>
          <tr>
            {columns.map((c) => (
              <chakra.th key={c.index} scope="col" textAlign="start" px="2" pb="2" minWidth="140px" verticalAlign="top">
                <Box mb="1">{c.name}</Box>
                <Select
                  aria-label={`${c.name} holds`}
                  value={c.role}
                  onChange={(e) => setColumn(c.index, { role: e.target.value as Role })}
                >
                  {Object.entries<string>(words).map(([role, word]) => (
                    <option key={role} value={role}>
                      {word}
                    </option>
                  ))}
                </Select>
                {(seen.units[c.role]?.length ?? 0) > 1 && (
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
              {columns.map((c) => (
                <chakra.td
                  key={c.index}
                  px="2"
                  py="1"
                  maxWidth="220px"
                  overflow="hidden"
                  textOverflow="ellipsis"
                  whiteSpace="nowrap"
                  fontVariantNumeric="tabular-nums"
                >
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
