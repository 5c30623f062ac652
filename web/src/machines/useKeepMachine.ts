import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';

/** One machine, whole, as the server gives it. */
export type Detail = Schemas['MachineDetail'];

/** Keeps a machine as changed, and everything that hangs on it fresh. */
export function useKeepMachine(machine: Detail) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (change: { name?: string; spec: Detail['spec'] }) =>
      data(
        api.PUT('/api/bench/machines/{id}', {
          params: { path: { id: machine.id } },
          body: { name: change.name ?? machine.name, spec: change.spec },
        }),
      ),
    onSuccess: () => queries.invalidateQueries(),
  });
}
