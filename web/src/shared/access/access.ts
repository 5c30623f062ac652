import { useQuery } from '@tanstack/react-query';
import { api, data } from '../api/client';

/** Who this screen is to the server. */
export const useAccess = () => useQuery({ queryKey: ['access'], queryFn: () => data(api.GET('/api/access')) });
