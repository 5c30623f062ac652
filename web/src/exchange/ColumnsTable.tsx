import type { Schemas } from '../shared/api/client';
import { MappedColumns } from './MappedColumns';

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

/** The first rows of a trace's file, and what its columns are taken for. */
export function ColumnsTable({ seen, setColumn }: Props) {
  const decimal = seen.decimalComma ? 'comma' : 'point';
  const header = seen.hasHeader ? 'with' : 'without';
  return (
    <MappedColumns
      seen={seen}
      columns={seen.columns}
      words={roles}
      note={`${seen.rows} rows, separated by ${seen.separator}, decimal ${decimal}, ${header} a header.`}
      setColumn={setColumn}
    />
  );
}
