import { useQuery } from '@tanstack/react-query';
import { api, data } from './client';

export const useHousehold = () => useQuery({ queryKey: ['household'], queryFn: () => data(api.GET('/api/household')) });

export const useBench = () => useQuery({ queryKey: ['bench'], queryFn: () => data(api.GET('/api/bench')) });

export const useSheet = () => useQuery({ queryKey: ['prepare'], queryFn: () => data(api.GET('/api/prepare')), retry: false });

export const useWarm = () => useQuery({ queryKey: ['warm'], queryFn: () => data(api.GET('/api/warm')), retry: false });

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
