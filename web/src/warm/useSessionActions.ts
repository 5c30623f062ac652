import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, Problem, type Schemas } from '../shared/api/client';

type Session = Schemas['SessionView'];

/** Everything that can be done to the session; each answer is the session as it then stands. */
export function useSessionActions() {
  const queries = useQueryClient();
  const kept = (next: Session) => {
    queries.setQueryData(['session'], next);
    void queries.invalidateQueries({ queryKey: ['prepare'] });
  };
  const tick = useMutation({
    mutationFn: (what: { do: 'begin' | 'done' | 'skip'; key: string; secondsAgo: number }) =>
      what.do === 'begin'
        ? data(api.POST('/api/session/begin', { body: { key: what.key, secondsAgo: what.secondsAgo, skipped: false } }))
        : data(
            api.POST('/api/session/done', {
              body: { key: what.key, secondsAgo: what.secondsAgo, skipped: what.do === 'skip' },
            }),
          ),
    onSuccess: kept,
  });
  // the tick that is meant is named: another screen may have ticked something since
  const undo = useMutation({
    mutationFn: (key: string) => data(api.POST('/api/session/undo', { body: { key } })),
    onSuccess: kept,
    onError: () => queries.invalidateQueries({ queryKey: ['session'] }),
  });
  const end = useMutation({ mutationFn: () => data(api.POST('/api/session/end')), onSuccess: kept });
  const ask = useMutation({
    mutationFn: ({ request: body, version }: { request: Schemas['SessionRequest']; version: number }) =>
      data(api.PUT('/api/session', { params: { query: { version } }, body })),
    onSuccess: kept,
    onError: (error) =>
      error instanceof Problem && error.status === 409 && queries.invalidateQueries({ queryKey: ['session'] }),
  });
  const read = useMutation({
    mutationFn: (reading: { kind: Schemas['HeatReadingKind']; value?: number }) =>
      data(
        api.POST('/api/session/readings', { body: { kind: reading.kind, value: reading.value ?? 0, secondsAgo: 0 } }),
      ),
    onSuccess: kept,
  });
  const forget = useMutation({
    mutationFn: ({ index, seconds: atSeconds }: { index: number; seconds: number }) =>
      data(api.DELETE('/api/session/readings/{index}', { params: { path: { index }, query: { atSeconds } } })),
    onSuccess: kept,
    onError: () => queries.invalidateQueries({ queryKey: ['session'] }),
  });
  return { tick, undo, end, ask, read, forget };
}
