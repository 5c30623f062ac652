import { useCallback, useEffect, useRef, useState } from 'react';
import { Problem, sentenceOf } from '../api/client';

interface What<T, A> {
  /** What is kept, as it is rendered. */
  rendered: unknown;
  /** What is kept now; straight from the cache, as what was rendered last may be older. */
  kept: () => T | undefined;
  /** Has the server keep a value. */
  send: (value: T) => Promise<A>;
  /** The server has kept it. */
  taken: (answer: A, value: T) => void;
  /** Somebody else changed it meanwhile: what is kept is asked for again, and what was typed is let go of. */
  outdated: () => void;
}

/**
 * Editing something that the server keeps, as it is typed: what is typed shows at once and is never lost to an answer
 * that comes late; one
 * question is asked at a time, and what is typed meanwhile goes in the next.
 */
export function useKeptEdit<T, A>(what: What<T, A>) {
  // what was typed, and over what it is shown once the server has it: it gives way when that is rendered again, and not
  // a moment before,
  // or the next letter would be typed into what stood there earlier
  const [typed, setTyped] = useState<{ value: T; over?: unknown } | null>(null);
  const [problem, setProblem] = useState<unknown>(null);
  const latest = useRef<T | null>(null);
  const pending = useRef<Promise<void> | undefined>(undefined);
  const how = useRef(what);
  useEffect(() => {
    how.current = what;
  });

  const sendLatest = useCallback(async () => {
    const value = latest.current;
    if (value === null) return;
    try {
      const answer = await how.current.send(value);
      const over = how.current.rendered;
      how.current.taken(answer, value);
      setProblem(null);
      if (latest.current === value) {
        latest.current = null;
        setTyped({ value, over });
      }
    } catch (thrown) {
      setProblem(thrown);
      if (thrown instanceof Problem && thrown.status === 409) {
        latest.current = null;
        setTyped(null);
        how.current.outdated();
      }
    }
  }, []);

  const send = useCallback(
    () =>
      (pending.current ??= (async () => {
        while (latest.current !== null) {
          const asked = latest.current;
          await sendLatest();
          if (latest.current === asked) break; // it failed: what was typed stays, and is asked again with the next key
        }
      })().finally(() => {
        pending.current = undefined;
      })),
    [sendLatest],
  );

  const change = useCallback(
    (next: (base: T) => T) => {
      const base = latest.current ?? how.current.kept();
      if (base === undefined) return;
      latest.current = next(base);
      setTyped({ value: latest.current });
      void send();
    },
    [send],
  );

  /** Waits until everything typed has reached the server; false where it did not. */
  const settle = useCallback(async () => {
    await send();
    if (latest.current !== null) await send();
    return latest.current === null;
  }, [send]);

  const shown = typed !== null && (!('over' in typed) || typed.over === what.rendered) ? typed.value : null;
  return { typed: shown, change, settle, problem, sentence: problem === null ? null : sentenceOf(problem) };
}
