import { describe, expect, it } from 'vitest';
import { usualColumns } from './columns';
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
      basketId: 4,
      roaster: 'Hut & Son',
      plan: 'Early peak, long ease',
      cause: 'group-hot',
      taste: 'Bitter' as const,
      atLeast: 2,
      ageFrom: 0,
      ageUntil: 14,
      groupFromC: 70.5,
      groupUntilC: null,
      waterFromC: null,
      waterUntilC: 93,
      r10From: 5.5,
      r10Until: 8,
      from: '2026-10-01',
      until: '2026-11-27',
      order: 'R10' as const,
      ascending: true,
      columns: ['Taste', 'R10', 'Plan'] as const,
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
      new URLSearchParams(
        'machine=x&beans=-3&page=0&ticked=5-5-y--2-8&liked=1.5&from=soon&order=Colour&r10above=x&columns=Colour&taste=Salt',
      ),
    );
    expect(view).toMatchObject({ machineId: null, bagId: null, minLiking: null, from: '', order: 'Date' });
    expect(view).toMatchObject({ r10From: null, taste: null, columns: usualColumns });
    expect(view).toMatchObject({ page: 0, ticked: [5, 2, 8] });
  });
});
