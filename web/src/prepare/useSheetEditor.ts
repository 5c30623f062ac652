import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { api, data, sentenceOf, type Schemas } from '../shared/api/client';
import { useSheet } from '../shared/api/queries';
import { predictionOf } from './prediction';

type Sheet = Schemas['Sheet'];

const stripPauseMs = 250;

/** Another machine starts from last time's sheet on it; who brews stays. */
export const machineChooser =
  (bench: Schemas['BenchView'], brewerId: number | null, change: (part: Partial<Sheet>) => void) => (id: number) => {
    const { start } = bench.machines.find((m) => m.id === id)!;
    change({ ...start, brewerId: brewerId ?? start.brewerId });
  };

/** The sheet as typed, with the server's answer following a moment later. What is typed is kept even where it does not do. */
export function useSheetEditor() {
  const queries = useQueryClient();
  const { data: answer, error } = useSheet();
  const [typed, setTyped] = useState<Sheet | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef<Sheet | null>(null);
  const strip = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const pending = useRef<Promise<void> | undefined>(undefined);

  const send = useCallback(async () => {
    const sheet = latest.current;
    if (!sheet) return;
    try {
      const got = await data(api.PUT('/api/prepare', { body: sheet }));
      if (latest.current === sheet) {
        latest.current = null;
        // asked for before the page is drawn anew, so that the prediction is there sooner
        void queries.prefetchQuery(predictionOf(got.sheet));
        queries.setQueryData(['prepare'], got);
        setTyped(null);
      }
      setProblem(null);
      // the strip can wait until the typing is over
      clearTimeout(strip.current);
      strip.current = setTimeout(() => void queries.invalidateQueries({ queryKey: ['session'] }), stripPauseMs);
    } catch (thrown) {
      setProblem(sentenceOf(thrown));
    }
  }, [queries]);

  const change = useCallback(
    (part: Partial<Sheet>) => {
      // straight from the cache: what was rendered last may be older than the server's last answer
      const base = latest.current ?? queries.getQueryData<Schemas['SheetAnswer']>(['prepare'])?.sheet;
      if (!base) return;
      latest.current = { ...base, ...part };
      setTyped(latest.current);
      // one question at a time: what is typed while the server answers goes in the next
      pending.current ??= (async () => {
        while (latest.current) {
          const asked = latest.current;
          await send();
          if (latest.current === asked) break; // it failed: what was typed stays, and is asked again with the next key
        }
      })().finally(() => {
        pending.current = undefined;
      });
    },
    [queries, send],
  );

  /** Waits until everything typed has reached the server. */
  const settle = useCallback(async () => {
    await pending.current;
    await send();
  }, [send]);

  return { sheet: typed ?? answer?.sheet ?? null, answer: answer ?? null, change, settle, error, problem };
}
