import { useState } from 'react';

/**
 * A form over something kept: shows it as it is now with what was typed in its place, and gives only what was typed,
 * so that saving sends
 * back nothing that somebody else changed meanwhile.
 */
export function useDraft<T extends object>(now: T) {
  const [typed, setTyped] = useState<Partial<T>>({});
  return {
    value: { ...now, ...typed },
    typed,
    set: (part: Partial<T>) => setTyped((before) => ({ ...before, ...part })),
    clear: () => setTyped({}),
    /** Forgets what was sent and is kept now; what was typed while it was on its way stays. */
    kept: (sent: Partial<T>) => setTyped((before) => since(before, sent)),
  };
}

const since = <T extends object>(typed: Partial<T>, sent: Partial<T>) =>
  Object.fromEntries(
    Object.entries(typed).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(sent[key as keyof T])),
  ) as Partial<T>;
