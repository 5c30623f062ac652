import { useAddress } from '../shared/edit/useAddress';
import { froms, shown, type Against, type From, type Shown } from './overlayLines';

export interface CompareView {
  ids: string;
  against: Against;
  from: From;
  above: Shown;
  below: Shown;
  /** Beside each other instead of over each other. */
  beside: boolean;
}

export function readCompare(params: URLSearchParams): CompareView {
  const against = params.get('against') === 'grams' ? 'grams' : 'seconds';
  const one = (key: string, usual: Shown) => shown.find((s) => s === params.get(key)) ?? usual;
  return {
    ids: params.get('ids') ?? '',
    against,
    from: (Object.keys(froms) as From[]).find((f) => f === params.get('from')) ?? 'lever',
    above: one('above', 'pressure'),
    below: one('below', against === 'grams' ? 'flow' : 'grams'),
    beside: params.has('beside'),
  };
}

/** What the comparison shows: in the address, so that it can be come back to. */
export function useCompareView() {
  const { params, change } = useAddress();
  return {
    view: readCompare(params),
    change: (part: Partial<Record<keyof CompareView, string | null>>) => change(part),
    address: params.toString(),
  };
}
