import { queryOptions, useQuery, type QueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from './client';

type EveryPage = Schemas['EveryPageView'];

/** What first.js asked for while the scripts came; null where the server did not tell. */
const early = () => (window as { early?: Promise<EveryPage | null> }).early;

/** Each is good for one question. */
const waiting = new Set<keyof EveryPage>(['household', 'bench', 'prepare', 'session']);

/** A part of what every page shows: the answer that is on its way, and the server's own ever after. */
const part =
  <P extends keyof EveryPage>(name: P, ask: () => Promise<NonNullable<EveryPage[P]>>) =>
  async () => {
    const told = waiting.delete(name) ? (await early())?.[name] : null;
    return told ?? ask();
  };

const household = queryOptions({
  queryKey: ['household'],
  queryFn: part('household', () => data(api.GET('/api/household'))),
});
const bench = queryOptions({ queryKey: ['bench'], queryFn: part('bench', () => data(api.GET('/api/bench'))) });
const sheet = queryOptions({
  queryKey: ['prepare'],
  queryFn: part('prepare', () => data(api.GET('/api/prepare'))),
  retry: false,
});
const session = queryOptions({
  queryKey: ['session'],
  queryFn: part('session', () => data(api.GET('/api/session'))),
  retry: false,
});

/**
 * Takes what every page shows, which first.js asked for while the scripts came. What it was not told is asked for
 * where it is shown. Gives back the sheet, if there is one.
 */
export async function takeEarly(queries: QueryClient) {
  const answer = await early();
  if (!answer) return null;
  for (const [{ queryKey }, told] of [
    [household, answer.household],
    [bench, answer.bench],
    [sheet, answer.prepare],
    [session, answer.session],
  ] as const)
    // a page that did not wait for it may have asked meanwhile
    if (told && queries.getQueryData(queryKey) === undefined) queries.setQueryData<unknown>(queryKey, told);
  waiting.clear();
  return answer.prepare?.sheet ?? null;
}

/** Takes a bench that was changed as the newest; whatever else may hang on it is asked for again. */
export function keepBench(queries: QueryClient, changed: Schemas['BenchView']) {
  queries.setQueryData(bench.queryKey, changed);
  return queries.invalidateQueries({ predicate: (query) => query.queryKey[0] !== bench.queryKey[0] });
}

/** Shots came or went: what is asked for at this moment may not know it yet, so it is asked again. */
export async function shotsChanged(queries: QueryClient) {
  await queries.cancelQueries({ queryKey: ['shots'] });
  await queries.invalidateQueries({ queryKey: ['shots'] });
}

export const useHousehold = () => useQuery(household);

export const useBench = () => useQuery(bench);

export const useSheet = () => useQuery(sheet);

/**
 * The session under way or as it would be planned now; asked for again while it goes on, as the heat moves by itself.
 */
export const useSession = () =>
  useQuery({
    ...session,
    refetchInterval: (query) => (query.state.data?.begun ? 5000 : query.state.data ? 30_000 : false),
  });

/** What the pulls have told of scales, spouts and hands. */
export const useLearned = () =>
  useQuery({ queryKey: ['pull', 'learned'], queryFn: () => data(api.GET('/api/pull/learned')) });

export const useMachine = (id: number) =>
  useQuery({
    queryKey: ['machine', id],
    queryFn: () => data(api.GET('/api/machines/{id}', { params: { path: { id } } })),
    retry: false,
  });

export const useShot = (id: number | undefined) =>
  useQuery({
    queryKey: ['shot', id],
    queryFn: () => data(api.GET('/api/shots/{id}', { params: { path: { id: id! } } })),
    enabled: id !== undefined,
    retry: false,
  });

/** What machines need now; asked seldom, as it changes by the day. */
export const useCareDue = () =>
  useQuery({
    queryKey: ['care', 'due'],
    queryFn: () => data(api.GET('/api/care/due')),
    staleTime: 600_000,
    refetchOnWindowFocus: false,
    retry: false,
  });

/** The schools by which shots can be judged. */
export const useSchools = () =>
  useQuery({ queryKey: ['schools'], queryFn: () => data(api.GET('/api/schools')), staleTime: Infinity });

/** Why a shot was as it was. */
export const useWhy = (id: number | undefined) =>
  useQuery({
    queryKey: ['shot', id, 'why'],
    queryFn: () => data(api.GET('/api/shots/{id}/why', { params: { path: { id: id! } } })),
    enabled: id !== undefined,
    retry: false,
  });

export const useLatestShot = () =>
  useQuery({
    queryKey: ['shots', 'latest'],
    queryFn: () => data(api.GET('/api/shots', { params: { query: { page: 0, size: 1, count: false } } })),
  });
