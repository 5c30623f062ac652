import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { api, data } from '../shared/api/client';
import { useSettled } from '../shared/edit/useSettled';
import type { Plan } from './planWords';

const pauseMs = 60;

/**
 * How a plan would run with the sheet's machine, dose, yield and what is believed of its puck; follows it a moment
 * later.
 */
export function usePlanPreview(plan: Plan | null) {
  const settled = useSettled(plan, pauseMs);
  return useQuery({
    queryKey: ['plan-preview', settled],
    queryFn: () => data(api.POST('/api/plans/preview', { body: settled! })),
    enabled: settled !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });
}
