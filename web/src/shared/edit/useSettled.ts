import { useEffect, useState } from 'react';

/** A value as it was when nothing had changed for a moment. */
export function useSettled<T>(value: T, pauseMs: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), pauseMs);
    return () => clearTimeout(timer);
  }, [value, pauseMs]);
  return settled;
}
