import { useCallback, useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../shared/api/client';
import { allColumns, usualColumns, type Column } from './columns';

/** What the ledger can be ordered by. */
export const orders = ['Date', 'Grind', 'Dose', 'Cup', 'Time', 'R10', 'Liking'] as const satisfies readonly Order[];
export type Order = Schemas['LedgerOrder'];

/** What the ledger shows: kept in the address, so that it can be come back to, shared and kept as a bookmark. */
export interface LedgerView {
  search: string;
  machineId: number | null;
  bagId: number | null;
  minLiking: number | null;
  brewerId: number | null;
  grinderId: number | null;
  basketId: number | null;
  roaster: string;
  plan: string;
  cause: string;
  taste: Taste | null;
  /** How much of that taste at least, of 4. */
  atLeast: number | null;
  /** Limits, each null for none: days of rest, group and water in degC, R10 in bar s/ml. */
  ageFrom: number | null;
  ageUntil: number | null;
  groupFromC: number | null;
  groupUntilC: number | null;
  waterFromC: number | null;
  waterUntilC: number | null;
  r10From: number | null;
  r10Until: number | null;
  /** Days as 2026-11-27; empty for no limit. */
  from: string;
  until: string;
  order: Order;
  ascending: boolean;
  bin: boolean;
  page: number;
  /** Columns that are shown, in their order. */
  columns: readonly Column[];
  /** Shots ticked to be compared, in the order of ticking. */
  ticked: readonly number[];
}

export const tastes = ['Sour', 'Bitter', 'Dry', 'Sweet', 'Body'] as const satisfies readonly Taste[];
export type Taste = Schemas['TasteMark'];

/** Filters beside search and the first three, with the word each has in the address. */
const idWords = { machineId: 'machine', bagId: 'beans', brewerId: 'brewer', grinderId: 'grinder', basketId: 'basket' };
const textWords = { search: 'search', roaster: 'roaster', plan: 'plan', cause: 'cause' };
const limitWords = {
  ageFrom: 'older',
  ageUntil: 'younger',
  groupFromC: 'groupabove',
  groupUntilC: 'groupbelow',
  waterFromC: 'waterabove',
  waterUntilC: 'waterbelow',
  r10From: 'r10above',
  r10Until: 'r10below',
};
type Ids = keyof typeof idWords;
type Texts = keyof typeof textWords;
export type Limits = keyof typeof limitWords;
const keysOf = <K extends string>(of: Record<K, string>) => Object.keys(of) as K[];

const limitIn = (params: URLSearchParams, key: string) => {
  const text = params.get(key);
  return text !== null && text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : null;
};

const numberIn = (params: URLSearchParams, key: string) => {
  const value = Number(params.get(key));
  return Number.isInteger(value) && value > 0 ? value : null;
};

const dayIn = (params: URLSearchParams, key: string) => {
  const text = params.get(key) ?? '';
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && Number.isFinite(Date.parse(text)) ? text : '';
};

export function readView(params: URLSearchParams): LedgerView {
  const each = <K extends string, V>(of: Record<K, string>, read: (word: string) => V) =>
    Object.fromEntries(keysOf(of).map((key) => [key, read(of[key])])) as Record<K, V>;
  const taste = tastes.find((t) => t === params.get('taste')) ?? null;
  const columns = (params.get('columns') ?? '').split('-').flatMap((word) => allColumns.find((c) => c === word) ?? []);
  return {
    ...each<Ids, number | null>(idWords, (word) => numberIn(params, word)),
    ...each<Texts, string>(textWords, (word) => params.get(word) ?? ''),
    ...each<Limits, number | null>(limitWords, (word) => limitIn(params, word)),
    minLiking: numberIn(params, 'liked'),
    taste,
    atLeast: taste && numberIn(params, 'atleast'),
    from: dayIn(params, 'from'),
    until: dayIn(params, 'until'),
    order: orders.find((o) => o === params.get('order')) ?? 'Date',
    ascending: params.has('ascending'),
    columns: columns.length > 0 ? [...new Set(columns)] : usualColumns,
    bin: params.has('bin'),
    page: (numberIn(params, 'page') ?? 1) - 1,
    ticked: [...new Set((params.get('ticked') ?? '').split('-').map(Number))].filter(
      (n) => Number.isInteger(n) && n > 0,
    ),
  };
}

export function writeView(view: LedgerView): URLSearchParams {
  const params = new URLSearchParams();
  for (const key of keysOf(textWords)) if (view[key]) params.set(textWords[key], view[key]);
  for (const key of keysOf(idWords)) if (view[key]) params.set(idWords[key], String(view[key]));
  for (const key of keysOf(limitWords)) if (view[key] !== null) params.set(limitWords[key], String(view[key]));
  if (view.minLiking) params.set('liked', String(view.minLiking));
  if (view.taste) params.set('taste', view.taste);
  if (view.taste && view.atLeast) params.set('atleast', String(view.atLeast));
  if (view.from) params.set('from', view.from);
  if (view.until) params.set('until', view.until);
  if (view.order !== 'Date') params.set('order', view.order);
  if (view.ascending) params.set('ascending', '');
  if (view.columns.join('-') !== usualColumns.join('-')) params.set('columns', view.columns.join('-'));
  if (view.bin) params.set('bin', '');
  if (view.page > 0) params.set('page', String(view.page + 1));
  if (view.ticked.length > 0) params.set('ticked', view.ticked.join('-'));
  return params;
}

/** The part of a view that the server is asked by. */
export const filterOf = (view: LedgerView) => ({
  ...Object.fromEntries([...keysOf(idWords), ...keysOf(textWords)].map((key) => [key, view[key] || undefined])),
  ...Object.fromEntries(keysOf(limitWords).map((key) => [key, view[key] ?? undefined])),
  minLiking: view.minLiking ?? undefined,
  taste: view.taste ?? undefined,
  atLeast: view.atLeast ?? undefined,
  from: view.from || undefined,
  until: view.until || undefined,
  bin: view.bin || undefined,
});

/** How many of the rarely used filters are set. */
export const moreSet = (view: LedgerView) =>
  [view.brewerId, view.grinderId, view.basketId, view.roaster, view.plan, view.cause, view.taste].filter(Boolean)
    .length +
  [view.from, view.until].filter(Boolean).length +
  keysOf(limitWords).filter((key) => view[key] !== null).length;

/** The view and what changes a part of it; a changed filter begins at the first page. */
export function useLedgerView() {
  const [params, setParams] = useSearchParams();
  const [view, setView] = useState(() => readView(params));
  const written = writeView(view).toString();
  const mirrored = useRef(written);
  // what is chosen goes into the address, and an address that was followed is what is shown
  useEffect(() => {
    mirrored.current = written;
    setParams(written, { replace: true });
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only what was chosen is written
  }, [written]);
  const address = params.toString();
  useEffect(() => {
    if (writeView(readView(new URLSearchParams(address))).toString() !== mirrored.current)
      setView(readView(new URLSearchParams(address)));
  }, [address]);
  const change = useCallback(
    (part: Partial<LedgerView> | ((now: LedgerView) => Partial<LedgerView>)) =>
      setView((now) => {
        const changed = typeof part === 'function' ? part(now) : part;
        const filters = 'page' in changed || 'ticked' in changed || 'columns' in changed ? {} : { page: 0 };
        return { ...now, ...filters, ...changed };
      }),
    [],
  );
  return { view, change };
}
