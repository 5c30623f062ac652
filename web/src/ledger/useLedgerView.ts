import { useCallback, useEffect, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../shared/api/client';

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
  /** Days as 2026-11-27; empty for no limit. */
  from: string;
  until: string;
  order: Order;
  ascending: boolean;
  bin: boolean;
  page: number;
  /** Shots ticked to be compared, in the order of ticking. */
  ticked: readonly number[];
}

const numberIn = (params: URLSearchParams, key: string) => {
  const value = Number(params.get(key));
  return Number.isInteger(value) && value > 0 ? value : null;
};

const dayIn = (params: URLSearchParams, key: string) => {
  const text = params.get(key) ?? '';
  return /^\d{4}-\d{2}-\d{2}$/.test(text) && Number.isFinite(Date.parse(text)) ? text : '';
};

export function readView(params: URLSearchParams): LedgerView {
  return {
    search: params.get('search') ?? '',
    machineId: numberIn(params, 'machine'),
    bagId: numberIn(params, 'beans'),
    minLiking: numberIn(params, 'liked'),
    brewerId: numberIn(params, 'brewer'),
    grinderId: numberIn(params, 'grinder'),
    from: dayIn(params, 'from'),
    until: dayIn(params, 'until'),
    order: orders.find((o) => o === params.get('order')) ?? 'Date',
    ascending: params.has('ascending'),
    bin: params.has('bin'),
    page: (numberIn(params, 'page') ?? 1) - 1,
    ticked: [...new Set((params.get('ticked') ?? '').split('-').map(Number))].filter(
      (n) => Number.isInteger(n) && n > 0,
    ),
  };
}

export function writeView(view: LedgerView): URLSearchParams {
  const params = new URLSearchParams();
  if (view.search) params.set('search', view.search);
  if (view.machineId) params.set('machine', String(view.machineId));
  if (view.bagId) params.set('beans', String(view.bagId));
  if (view.minLiking) params.set('liked', String(view.minLiking));
  if (view.brewerId) params.set('brewer', String(view.brewerId));
  if (view.grinderId) params.set('grinder', String(view.grinderId));
  if (view.from) params.set('from', view.from);
  if (view.until) params.set('until', view.until);
  if (view.order !== 'Date') params.set('order', view.order);
  if (view.ascending) params.set('ascending', '');
  if (view.bin) params.set('bin', '');
  if (view.page > 0) params.set('page', String(view.page + 1));
  if (view.ticked.length > 0) params.set('ticked', view.ticked.join('-'));
  return params;
}

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
        const filters = 'page' in changed || 'ticked' in changed ? {} : { page: 0 };
        return { ...now, ...filters, ...changed };
      }),
    [],
  );
  return { view, change };
}
