import { useEffect, useLayoutEffect, useRef } from 'react';
import type { Instrument } from './instrument';

/** No eye follows more drawings than thirty a second, and a long line takes its time to paint. */
const leastMsBetween = 30;

/** Draws after every render, and then, on animation frames, whenever the instrument tells something new. */
export function useLiveDrawing(view: Instrument, draw: () => void) {
  const latest = useRef(draw);
  useLayoutEffect(() => {
    latest.current = draw;
    draw();
  });
  useEffect(() => {
    let scheduled = 0;
    let drawn = 0;
    const onFrame = (now: number) => {
      if (now - drawn < leastMsBetween) {
        scheduled = requestAnimationFrame(onFrame);
        return;
      }
      scheduled = 0;
      drawn = now;
      latest.current();
    };
    const stop = view.listen(() => {
      scheduled ||= requestAnimationFrame(onFrame);
    });
    return () => {
      stop();
      cancelAnimationFrame(scheduled);
    };
  }, [view]);
}
