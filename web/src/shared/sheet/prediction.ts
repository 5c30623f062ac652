import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query';
import { api, data, type Schemas } from '../api/client';

/** The question for what is predicted of a sheet as the server has it. */
export const predictionOf = (sheet: Schemas['Sheet']) =>
  queryOptions({
    queryKey: ['prediction', sheet],
    queryFn: () => data(api.GET('/api/prepare/prediction')),
    staleTime: 1000,
    retry: false,
  });

/** Predicted shot and grind advice of the sheet; they follow it a moment later. */
export function usePrediction(sheet: Schemas['Sheet']) {
  const { data: view, isPlaceholderData } = useQuery({ ...predictionOf(sheet), placeholderData: keepPreviousData });
  return { view, known: view !== undefined && !isPlaceholderData };
}

/** The changes that land the sheet's shot. A search: it follows a little later than the prediction. */
export function useLanding(sheet: Schemas['Sheet'], predicted: boolean) {
  const { data: changes, isPlaceholderData } = useQuery({
    queryKey: ['landing', sheet],
    queryFn: () => data(api.GET('/api/prepare/landing')),
    staleTime: 1000,
    retry: false,
    // the prediction goes first
    enabled: predicted,
    placeholderData: keepPreviousData,
  });
  return {
    changes: changes?.changes ?? [],
    sentence: changes?.sentence ?? null,
    known: changes !== undefined && !isPlaceholderData,
  };
}
