import { useQueryClient } from '@tanstack/react-query';
import type { Schemas } from '../shared/api/client';

export type Network = Schemas['NetworkView'];

export const networkKey = ['network'];

/** Takes what the server says of the network as the newest. */
export function useKeepNetwork() {
  const queries = useQueryClient();
  return (network: Network) => queries.setQueryData(networkKey, network);
}
