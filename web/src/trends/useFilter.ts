import { useAddress } from '../shared/edit/useAddress';

/** What is asked for, in the address: whoever comes back finds it as it was. */
export function useFilter() {
  const { params, change } = useAddress();
  const number = (key: string) => {
    const value = Number(params.get(key));
    return Number.isInteger(value) && value > 0 ? value : null;
  };
  const set = (changes: Record<string, string | number | null>) =>
    change(Object.fromEntries(Object.entries(changes).map(([key, value]) => [key, value === '' ? null : value])));
  return {
    text: (key: string, otherwise: string) => params.get(key) ?? otherwise,
    set,
    machineId: number('machine'),
    bagId: number('beans'),
    brewerId: number('brewer'),
  };
}
