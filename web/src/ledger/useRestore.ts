import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';
import { shotsChanged } from '../shared/api/queries';

/** Takes a shot out of the bin. */
export function useRestore() {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (id: number) => data(api.POST('/api/shots/{id}/restore', { params: { path: { id } } })),
    onSuccess: () => shotsChanged(queries),
  });
}
