import { useSearchParams } from 'react-router';
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
  const [params, setParams] = useSearchParams();
  const change = (part: Partial<Record<keyof CompareView, string | null>>) =>
    setParams(
      () => {
        // from the address itself: what is drawn may be a change behind it
        const next = new URLSearchParams(location.search);
        for (const [key, value] of Object.entries(part))
          if (value === null) next.delete(key);
          else next.set(key, value);
        return next;
      },
      { replace: true },
    );
  return { view: readCompare(params), change, address: params.toString() };
}
