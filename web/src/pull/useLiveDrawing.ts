import { useEffect, useLayoutEffect, useRef } from 'react';
import type { Instrument } from './instrument';

/** Draws after every render, and then, at most once an animation frame, whenever the instrument tells something new. */
export function useLiveDrawing(view: Instrument, draw: () => void) {
  const latest = useRef(draw);
  useLayoutEffect(() => {
    latest.current = draw;
    draw();
  });
  useEffect(() => {
    let scheduled = 0;
    const stop = view.listen(() => {
      scheduled ||= requestAnimationFrame(() => {
        scheduled = 0;
        latest.current();
      });
    });
    return () => {
      stop();
      cancelAnimationFrame(scheduled);
    };
  }, [view]);
}
