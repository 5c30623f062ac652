import { describe, expect, it } from 'vitest';
import { readView, writeView } from './useLedgerView';

describe('the ledger in the address', () => {
  it('comes back as it was left', () => {
    const view = {
      search: 'gentian & smoke',
      machineId: 2,
      bagId: 3,
      minLiking: 4,
      brewerId: 1,
      grinderId: 2,
      from: '2026-10-01',
      until: '2026-11-27',
      order: 'R10' as const,
      ascending: true,
      bin: false,
      page: 2,
      ticked: [55, 7, 12],
    };
    expect(readView(new URLSearchParams(writeView(view).toString()))).toEqual(view);
  });

  it('says nothing where nothing was asked', () => {
    expect(writeView(readView(new URLSearchParams())).toString()).toBe('');
  });

  it('takes an address that somebody typed for what can be read in it', () => {
    const view = readView(
      new URLSearchParams('machine=x&beans=-3&page=0&ticked=5-5-y--2-8&liked=1.5&from=soon&order=Colour'),
    );
    expect(view).toMatchObject({ machineId: null, bagId: null, minLiking: null, from: '', order: 'Date' });
    expect(view).toMatchObject({ page: 0, ticked: [5, 2, 8] });
  });
});
