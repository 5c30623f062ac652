/** Columns of the ledger that can be shown besides tick and number, with their names. */
export const columnNames = {
  Trace: 'Trace',
  Coffee: 'Coffee and machine',
  Grind: 'Grind',
  InOut: 'In, out',
  Ratio: 'Ratio',
  Time: 'Time',
  Drops: 'First drops',
  Peak: 'Peak pressure',
  Flow: 'Mean flow',
  R10: 'R10',
  Taste: 'Taste',
  Plan: 'Plan',
  Roaster: 'Roaster',
  Who: 'Who brewed',
  Water: 'Water at the puck',
  Mean: 'Mean pressure',
  Work: 'Work',
} as const;

export type Column = keyof typeof columnNames;

export const allColumns = Object.keys(columnNames) as Column[];

/** What is shown where nothing was chosen. */
export const usualColumns: readonly Column[] = allColumns.slice(0, allColumns.indexOf('Plan'));
