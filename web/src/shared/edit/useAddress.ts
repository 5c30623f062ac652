import { useSearchParams } from 'react-router';

/** What the address asks for after its question mark, and what changes parts of it at once; null takes one away. */
export function useAddress() {
  const [params, setParams] = useSearchParams();
  const change = (part: Record<string, string | number | null>) =>
    setParams(
      () => {
        // from the address itself: what is drawn may be a change behind it, and of two the first would be lost
        const next = new URLSearchParams(location.search);
        for (const [key, value] of Object.entries(part))
          if (value === null) next.delete(key);
          else next.set(key, String(value));
        return next;
      },
      { replace: true },
    );
  return { params, change };
}
