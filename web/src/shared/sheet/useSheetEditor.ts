import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef } from 'react';
import { api, data, type Schemas } from '../api/client';
import { useSheet } from '../api/queries';
import { useKeptEdit } from '../edit/useKeptEdit';
import { predictionOf } from './prediction';

type Sheet = Schemas['Sheet'];
type Answer = Schemas['SheetAnswer'];

const stripPauseMs = 250;

/** Another machine starts from last time's sheet on it; who brews stays. */
export const machineChooser =
  (bench: Schemas['BenchView'], brewerId: number | null, change: (part: Partial<Sheet>) => void) => (id: number) => {
    const { start } = bench.machines.find((m) => m.id === id)!;
    change({ ...start, brewerId: brewerId ?? start.brewerId });
  };

/**
 * The sheet as typed, with the server's answer following a moment later. What is typed is kept even where it does not
 * do.
 */
export function useSheetEditor() {
  const queries = useQueryClient();
  const { data: answer, error } = useSheet();
  const strip = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const newest = () => queries.getQueryData<Answer>(['prepare']);
  const edit = useKeptEdit<Sheet, Answer>({
    rendered: answer,
    kept: () => newest()?.sheet,
    send: (body) => data(api.PUT('/api/prepare', { params: { query: { version: newest()?.version ?? 0 } }, body })),
    taken: (got) => {
      // asked for before the page is drawn again, so that the prediction is there sooner
      void queries.prefetchQuery(predictionOf(got.sheet));
      queries.setQueryData(['prepare'], got);
      // the strip can wait until the typing is over
      clearTimeout(strip.current);
      strip.current = setTimeout(() => void queries.invalidateQueries({ queryKey: ['session'] }), stripPauseMs);
    },
    outdated: () => void queries.invalidateQueries({ queryKey: ['prepare'] }),
  });
  const { change: changeWhole, settle } = edit;
  const change = useCallback((part: Partial<Sheet>) => changeWhole((base) => ({ ...base, ...part })), [changeWhole]);
  /** Waits until everything typed has reached the server: the version that was kept then, or null where it was not. */
  const settled = useCallback(
    async () => ((await settle()) ? (queries.getQueryData<Answer>(['prepare'])?.version ?? 0) : null),
    [settle, queries],
  );
  return {
    sheet: edit.typed ?? answer?.sheet ?? null,
    answer: answer ?? null,
    change,
    settle: settled,
    error,
    problem: edit.sentence,
  };
}
