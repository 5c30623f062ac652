import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../shared/api/client';

type Session = Schemas['SessionView'];

/** Everything that can be done to the session; each answer is the session as it then stands. */
export function useSessionActions() {
  const queries = useQueryClient();
  const kept = async (next: Session) => {
    queries.setQueryData(['session'], next);
    await queries.invalidateQueries({ queryKey: ['prepare'] });
  };
  const tick = useMutation({
    mutationFn: (what: { do: 'begin' | 'done' | 'skip'; key: string; secondsAgo: number }) =>
      what.do === 'begin'
        ? data(api.POST('/api/session/begin', { body: { key: what.key, secondsAgo: what.secondsAgo, skipped: false } }))
        : data(
            api.POST('/api/session/done', { body: { key: what.key, secondsAgo: what.secondsAgo, skipped: what.do === 'skip' } }),
          ),
    onSuccess: kept,
  });
  const undo = useMutation({ mutationFn: () => data(api.POST('/api/session/undo')), onSuccess: kept });
  const end = useMutation({ mutationFn: () => data(api.POST('/api/session/end')), onSuccess: kept });
  const ask = useMutation({
    mutationFn: (body: Schemas['SessionRequest']) => data(api.PUT('/api/session', { body })),
    onSuccess: kept,
  });
  const read = useMutation({
    mutationFn: (reading: { kind: Schemas['HeatReadingKind']; value?: number }) =>
      data(api.POST('/api/session/readings', { body: { kind: reading.kind, value: reading.value ?? 0, secondsAgo: 0 } })),
    onSuccess: kept,
  });
  const forget = useMutation({
    mutationFn: (index: number) => data(api.DELETE('/api/session/readings/{index}', { params: { path: { index } } })),
    onSuccess: kept,
  });
  return { tick, undo, end, ask, read, forget };
}
