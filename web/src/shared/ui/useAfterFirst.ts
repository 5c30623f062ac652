import { startTransition, useEffect, useState } from 'react';
import { onceDrawn } from '../onceDrawn';

/** False until what comes first is on the screen: it can be used before the rest of it is drawn. */
export function useAfterFirst(ready = true): boolean {
  const [after, setAfter] = useState(false);
  useEffect(() => {
    if (!ready) return;
    return onceDrawn(() => startTransition(() => setAfter(true)));
  }, [ready]);
  return after;
}
