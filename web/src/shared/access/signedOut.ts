import { useSyncExternalStore } from 'react';

let out = false;
const listeners = new Set<() => void>();

function listen(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** The server wants to know who this device is before it says anything. */
export function markSignedOut() {
  out = true;
  for (const listener of listeners) listener();
}

/** Whether this device has to sign in. */
export const useSignedOut = () => useSyncExternalStore(listen, () => out);
