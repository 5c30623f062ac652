import { useSyncExternalStore } from 'react';

interface Said {
  title: string;
  action?: { label: string; onClick: () => void };
}

let wanted = false;
const listeners = new Set<() => void>();

function listen(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Whether anything was said yet: what shows it is fetched only then. */
export const useAnythingSaid = () => useSyncExternalStore(listen, () => wanted);

/** Says at the edge of the window what was just done, with a way to take it back. */
export async function say(what: Said) {
  wanted = true;
  for (const listener of listeners) listener();
  const { toaster } = await import('./toastStore');
  toaster.create(what);
}
