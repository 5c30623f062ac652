import { queryOptions } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';

/** The question for shots side by side, by their numbers with commas between. */
export const comparisonOf = (ids: string) =>
  queryOptions({
    queryKey: ['compare', ids],
    queryFn: () => data(api.GET('/api/shots/compare', { params: { query: { ids } } })),
    staleTime: 2000,
    retry: false,
  });
