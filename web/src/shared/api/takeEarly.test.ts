// @vitest-environment jsdom
import { readFileSync } from 'node:fs';
import { QueryClient } from '@tanstack/react-query';
import { expect, it, vi } from 'vitest';

it('what first.js asks for is all that every page shows, and stands in the cache without another question', async () => {
  const asked: string[] = [];
  vi.stubGlobal('matchMedia', () => ({ matches: false }));
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path);
    return Promise.resolve(new Response(JSON.stringify({ path })));
  });
  window.eval(readFileSync('public/first.js', 'utf8'));
  const early = (window as unknown as { early: Record<string, { coming: Promise<unknown> }> }).early;
  await Promise.all(Object.values(early).map((one) => one.coming));

  const queries = new QueryClient();
  const { takeEarly } = await import('./queries');
  expect(takeEarly(queries)).toBe(true);
  const shown = queries.getQueryCache().getAll();
  expect(shown.map((query) => (query.state.data as { path: string }).path).sort()).toEqual([...asked].sort());
});
