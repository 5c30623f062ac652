import { useEffect, useMemo, useRef } from 'react';
import type { Schemas } from '../shared/api/client';
import type { Instrument } from '../shared/instruments/instrument';
import { live, useLiveStatus } from '../shared/live/live';

export type PracticeFrame = Schemas['PracticeFrame'];

/** The instruments of a lesson: the same as of a pull, with frames of their own, and the lever beside them. */
export function usePractice(view: Schemas['PracticeView'] | null, over: () => void) {
  const { connected } = useLiveStatus();
  const listeners = useRef(new Set<(frame: PracticeFrame) => void>());
  const id = view?.id;
  const ended = useRef(over);
  useEffect(() => {
    ended.current = over;
  }, [over]);

  useEffect(() => {
    if (!id) return;
    return live.on('practice', (frame: PracticeFrame) => {
      if (frame.frame.pullId !== id) return;
      for (const listener of listeners.current) listener(frame);
      if (frame.over) ended.current();
    });
  }, [id]);
  useEffect(() => {
    if (id && connected) live.say('JoinPractice', id);
  }, [id, connected]);

  return useMemo(() => {
    if (!view) return null;
    const listenToLever = (listener: (frame: PracticeFrame) => void) => {
      listeners.current.add(listener);
      return () => {
        listeners.current.delete(listener);
      };
    };
    const instrument: Instrument = {
      ...view,
      frame: view.frame.frame,
      listen: (listener) => listenToLever((frame) => listener(frame.frame)),
    };
    return { instrument, listenToLever };
  }, [view]);
}
