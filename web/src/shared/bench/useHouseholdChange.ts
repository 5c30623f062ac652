import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, Problem, type Schemas } from '../api/client';
import { benchSettings } from './benchSettings';

/** Changes a part of the household's settings, and leaves the others as they are. */
export function useHouseholdChange(
  household: Schemas['HouseholdView'] | undefined,
  saved?: (now: Schemas['HouseholdView']) => void,
) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: (part: Partial<Schemas['HouseholdChange']>) => {
      const { version } = household!;
      return data(
        api.PUT('/api/household', {
          params: { query: { version } },
          body: { ...benchSettings(household!), ...part },
        }),
      );
    },
    onSuccess: async (next) => {
      queries.setQueryData(['household'], next);
      saved?.(next);
      await queries.invalidateQueries();
    },
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['household'] }),
  });
}
