import type { ReactNode } from 'react';
import { Navigate } from 'react-router';
import { useBench } from '../shared/api/queries';

/** What needs a machine; on an empty bench the welcome takes its place. */
export function WithMachine({ children }: { children: ReactNode }) {
  const { data: bench } = useBench();
  return bench?.machines.length === 0 ? <Navigate to="/welcome" replace /> : children;
}
