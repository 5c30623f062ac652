import type { Schemas } from '../shared/api/client';

/** What is wrong with a field of the sheet, if anything. */
export const wrongIn = (problems: readonly Schemas['SheetProblem'][], field: string) =>
  problems.find((p) => p.field === field)?.sentence;
