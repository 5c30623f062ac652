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
  };
}
