import { queryOptions } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';

/** Whether there is nothing to compare: one shot, or none. */
export const tooFewToCompare = (ids: string) => new Set(ids.split(',').filter(Boolean)).size < 2;

/** The question for shots side by side, by their numbers with commas between. */
export const comparisonOf = (ids: string) =>
  queryOptions({
    queryKey: ['compare', ids],
    queryFn: () => data(api.GET('/api/shots/compare', { params: { query: { ids } } })),
    staleTime: 2000,
    retry: false,
    enabled: !tooFewToCompare(ids),
  });
