import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Problem, type Schemas } from '../shared/api/client';
import { patchMachine } from '../shared/api/patch';

/** One machine, whole, as the server gives it. */
export type Detail = Schemas['MachineDetail'];

/** Keeps what changes of a machine, and everything that hangs on it fresh. */
export function useKeepMachine(machine: Detail) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: { name?: string; spec?: Partial<Detail['spec']> }) => patchMachine(machine, change),
    onSuccess: () => queries.invalidateQueries(),
    // somebody else was first: what they did is shown under what was typed here
    onError: (error) =>
      error instanceof Problem &&
      error.status === 409 &&
      queries.invalidateQueries({ queryKey: ['machine', machine.id] }),
  });
}
