import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, data } from '../shared/api/client';
import type { Plan } from './planWords';

const pauseMs = 60;

/** The plan as it was when nothing had changed for a moment. */
function useSettled(plan: Plan | null): Plan | null {
  const [settled, setSettled] = useState(plan);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(plan), pauseMs);
    return () => clearTimeout(timer);
  }, [plan]);
  return settled;
}

/** How a plan would run with the sheet's machine, dose, yield and what is believed of its puck; follows it a moment later. */
export function usePlanPreview(plan: Plan | null) {
  const settled = useSettled(plan);
  return useQuery({
    queryKey: ['plan-preview', settled],
    queryFn: () => data(api.POST('/api/plans/preview', { body: settled! })),
    enabled: settled !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
