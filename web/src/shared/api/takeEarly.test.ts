// @vitest-environment jsdom
import { readFileSync } from 'node:fs';
import { QueryClient } from '@tanstack/react-query';
import { beforeEach, expect, it, vi } from 'vitest';
import { takeEarly } from './queries';

const told = { household: { name: 'Hut' }, bench: { machines: [] }, prepare: { version: 3 }, session: { id: null } };
let queries: QueryClient;
let asked: string[];

/** Runs first.js as the page does, with a server that answers so. */
function first(answer: () => Response | Promise<Response>) {
  vi.stubGlobal('fetch', async (path: string) => {
    asked.push(path);
    return answer();
  });
  window.eval(readFileSync('public/first.js', 'utf8'));
}

const kept = () => queries.getQueryCache().getAll();

beforeEach(() => {
  queries = new QueryClient();
  asked = [];
  vi.stubGlobal('matchMedia', () => ({ matches: false }));
});

it('what every page shows comes in one answer and stands in the cache without another question', async () => {
  first(() => new Response(JSON.stringify(told)));
  await takeEarly(queries);
  expect(asked).toEqual(['/api/every-page']);
  expect(Object.fromEntries(kept().map((one) => [one.queryKey.join(), one.state.data]))).toEqual(told);
});

it('without a machine there is no sheet and no session, and both are left to be asked for', async () => {
  first(() => new Response(JSON.stringify({ ...told, prepare: null, session: null })));
  await takeEarly(queries);
  expect(kept().map((one) => one.queryKey.join())).toEqual(['household', 'bench']);
});

it('a server that refuses, does not answer or answers something else leaves all to be asked for', async () => {
  for (const answer of [
    () => new Response('{}', { status: 401 }),
    () => Promise.reject(new TypeError('away')),
    () => new Response('<html>'),
  ]) {
    first(answer);
    await takeEarly(queries);
    expect(kept()).toEqual([]);
  }
});

it('what was asked for meanwhile is newer and stays', async () => {
  first(() => new Response(JSON.stringify(told)));
  queries.setQueryData(['prepare'], { version: 4 });
  await takeEarly(queries);
  expect(queries.getQueryData(['prepare'])).toEqual({ version: 4 });
});
