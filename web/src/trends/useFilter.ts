import { useSearchParams } from 'react-router';

/** What is asked for, in the address: whoever comes back finds it as it was. */
export function useFilter() {
  const [params, setParams] = useSearchParams();
  const number = (key: string) => {
    const value = Number(params.get(key));
    return Number.isInteger(value) && value > 0 ? value : null;
  };
  // all that changes at once: of two changes one after the other the address keeps the second alone
  const set = (changes: Record<string, string | number | null>) =>
    setParams(
      () => {
        // from the address itself: what is drawn may be a change behind it
        const next = new URLSearchParams(location.search);
        for (const [key, value] of Object.entries(changes))
          if (value === null || value === '') next.delete(key);
          else next.set(key, String(value));
        return next;
      },
      { replace: true },
    );
  return {
    text: (key: string, otherwise: string) => params.get(key) ?? otherwise,
    set,
    machineId: number('machine'),
    bagId: number('beans'),
    brewerId: number('brewer'),
  };
}
