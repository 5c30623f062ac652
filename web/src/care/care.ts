import { useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../shared/api/client';
import { dayOf } from '../shared/clock';

export type MachineCare = Schemas['MachineCareView'];
export type CareTask = Schemas['CareTaskView'];

export const careKey = ['care'];

/** Everything about care is asked for again, the strip's line too. */
export function useCareChanged() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: careKey });
}

/** When a task is due, in a few words. */
export function dueWords(task: CareTask): string {
  if (task.isOff) return 'left out';
  if (!task.due) return 'not used yet';
  switch (task.due.state) {
    case 'Overdue':
      return 'overdue';
    case 'Due':
      return 'due now';
    default:
      return `due ${dayOf(task.due.on)}`;
  }
}
