import { describe, expect, it } from 'vitest';
import { readView, writeView } from './useLedgerView';

describe('the ledger in the address', () => {
  it('comes back as it was left', () => {
    const view = {
      search: 'gentian & smoke',
      machineId: 2,
      bagId: 3,
      minLiking: 4,
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
    const view = readView(new URLSearchParams('machine=x&beans=-3&page=0&ticked=5-5-y--2-8&liked=1.5'));
    expect(view).toMatchObject({ machineId: null, bagId: null, minLiking: null, page: 0, ticked: [5, 2, 8] });
  });
});
