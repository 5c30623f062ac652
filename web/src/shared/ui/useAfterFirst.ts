import { startTransition, useEffect, useState } from 'react';

/** False until what comes first is on the screen: it can be used before the rest of it is drawn. */
export function useAfterFirst(ready = true): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    if (!ready) return;
    const frame = requestAnimationFrame(() => startTransition(() => setAfter(true)));
    return () => cancelAnimationFrame(frame);
  }, [ready]);
  return after;
}
