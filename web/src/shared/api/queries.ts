import { useQuery } from '@tanstack/react-query';
import { api, data } from './client';

export const useHousehold = () => useQuery({ queryKey: ['household'], queryFn: () => data(api.GET('/api/household')) });

export const useBench = () => useQuery({ queryKey: ['bench'], queryFn: () => data(api.GET('/api/bench')) });

export const useSheet = () => useQuery({ queryKey: ['prepare'], queryFn: () => data(api.GET('/api/prepare')), retry: false });

/** The session under way or as it would be planned now; asked for again while it goes on, as the heat moves by itself. */
export const useSession = () =>
  useQuery({
    queryKey: ['session'],
    queryFn: () => data(api.GET('/api/session')),
    retry: false,
    refetchInterval: (query) => (query.state.data?.begun ? 5000 : query.state.data ? 30_000 : false),
  });

export const useMachine = (id: number) =>
  useQuery({
    queryKey: ['machine', id],
    queryFn: () => data(api.GET('/api/machines/{id}', { params: { path: { id } } })),
    retry: false,
  });

export const useShot = (id: number | undefined) =>
  useQuery({
    queryKey: ['shot', id],
    queryFn: () => data(api.GET('/api/shots/{id}', { params: { path: { id: id! } } })),
    enabled: id !== undefined,
    retry: false,
  });

export const useLatestShot = () =>
  useQuery({
    queryKey: ['shots', 'latest'],
    queryFn: () => data(api.GET('/api/shots', { params: { query: { page: 0, size: 1 } } })),
  });
