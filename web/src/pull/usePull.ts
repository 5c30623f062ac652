import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, data, Problem } from '../shared/api/client';
import { live, type LivePull } from '../shared/live/live';
import { lateDeedsOf, useLateDeeds } from './lateDeeds';

const settleMs = 3200;
export type Moment = 'drops' | 'ease' | 'blonding';

/** One pull as this screen sees it: its state, and what can be done with it. */
export function usePull(mine: LivePull | undefined, connected: boolean) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const id = mine?.id ?? null;
  const stage = mine?.stage ?? 'Idle';
  const query = id ? { pull: id } : undefined;
  const { data: view, error } = useQuery({
    queryKey: ['pull', id],
    queryFn: () => data(api.GET('/api/pull', { params: { query } })),
    staleTime: Infinity,
    gcTime: 0,
    placeholderData: (before) => before,
    retry: false,
  });
  useRefetchAfterLoss(id);

  const act = useMutation({
    mutationFn: async (what: 'begin' | 'stop' | Moment) => {
      const params = { params: { query } };
      const late = id === null ? null : lateDeedsOf(id);
      // what was done before it is told first
      if (late && (!connected || late.count() > 0)) {
        late.add(what);
        return;
      }
      try {
        await data(
          what === 'begin'
            ? api.POST('/api/pull/begin', params)
            : what === 'stop'
              ? api.POST('/api/pull/stop', params)
              : api.POST('/api/pull/mark', { ...params, body: { moment: what } }),
        );
      } catch (error) {
        if (!late || !(error instanceof Problem) || error.status !== 0) throw error;
        late.add(what);
      }
    },
  });
  const [refused, setRefused] = useState<unknown>(null);
  const waiting = useLateDeeds(id, setRefused);
  const show = useCallback(
    async (shotId: number) => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
      await queries.invalidateQueries({ queryKey: ['bench'] });
      await navigate(`/taste/${shotId}`);
    },
    [queries, navigate],
  );
  const save = useMutation({
    mutationFn: () => data(api.POST('/api/pull/save', { params: { query } })),
    onSuccess: ({ shotId }) => show(shotId),
  });

  const discard = useMutation({
    mutationFn: (forGood: boolean) => data(api.POST('/api/pull/discard', { params: { query: { ...query, forGood } } })),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: ['shots'] });
    },
  });
  const takeBack = useMutation({
    mutationFn: (shotId: number) => data(api.POST('/api/shots/{id}/restore', { params: { path: { id: shotId } } })),
    onSuccess: async (_, shotId) => {
      discard.reset();
      await show(shotId);
    },
  });

  const { mutate: doAct } = act;
  const { mutate: doDiscard } = discard;
  const { mutate: doSave } = save;
  const { reset: resetDiscard } = discard;
  const [marked, setMarked] = useState<readonly Moment[]>([]);
  const mark = useCallback(
    (moment: Moment) => {
      doAct(moment);
      setMarked((now) => [...now, moment]);
    },
    [doAct],
  );
  useEffect(() => {
    if (stage === 'Ready') {
      setMarked([]);
      setRefused(null);
      resetDiscard();
    }
    if (stage !== 'Settling') return;
    const timer = setTimeout(doSave, settleMs);
    return () => clearTimeout(timer);
  }, [stage, doSave, resetDiscard]);

  return {
    id,
    /** As the hand has it, also where the server does not know yet. */
    stage: id !== null && waiting > 0 ? lateDeedsOf(id).stageAfter(stage) : stage,
    view,
    error,
    act: doAct,
    discard: doDiscard,
    /** The shot in the bin that a pull was thrown away as; null where there is none. */
    binned: discard.data?.shotId ?? null,
    takeBack: takeBack.mutate,
    /** The pull has ended and could not be stored. */
    unsaved: stage === 'Settling' && (save.isError || discard.isError),
    save: doSave,
    saving: save.isPending,
    mark,
    marked,
    show,
    /** How much was done while the server was away, and waits for it. */
    waiting,
    problem: act.error ?? refused ?? save.error ?? discard.error ?? takeBack.error,
  };
}

/** Asks for the whole pull again when frames went missing, e.g. after a sleep or a lost connection. */
function useRefetchAfterLoss(id: string | null) {
  const queries = useQueryClient();
  const last = useRef<number | null>(null);
  useEffect(() => {
    last.current = null;
    return live.onFrame(id, (frame) => {
      if (id && last.current !== null && frame.sequence !== last.current + 1)
        void queries.invalidateQueries({ queryKey: ['pull', id] });
      last.current = frame.sequence;
    });
  }, [queries, id]);
}
