import { useEffect, useLayoutEffect, useRef } from 'react';
import type { LiveFrame } from '../live/live';
import type { Instrument } from './instrument';

/** No eye follows more drawings than thirty a second, and a long line takes its time to paint. */
const lineEveryMs = 30;

/** A digit that changes more often is not read. */
export const figureEveryMs = 100;

/** Who asks the system for less motion sees lines grow as often as digits change. */
const calmest = () => (window.matchMedia('(prefers-reduced-motion: reduce)').matches ? figureEveryMs : 0);

/**
 * Draws the newest frame after every render, and then, on animation frames and at most so often, whenever the
 * instrument tells something
 * new.
 */
export function useLiveDrawing(view: Instrument, draw: (frame: LiveFrame) => void, everyMs = lineEveryMs) {
  const latest = useRef(draw);
  const told = useRef({ view, frame: view.frame });
  useLayoutEffect(() => {
    latest.current = draw;
    if (told.current.view !== view) told.current = { view, frame: view.frame };
    draw(told.current.frame);
  });
  useEffect(() => {
    let scheduled = 0;
    let drawn = 0;
    const pause = Math.max(everyMs, calmest());
    const onFrame = (now: number) => {
      if (now - drawn < pause) {
        scheduled = requestAnimationFrame(onFrame);
        return;
      }
      scheduled = 0;
      drawn = now;
      latest.current(told.current.frame);
    };
    const stop = view.listen((frame) => {
      told.current = { view, frame };
      scheduled ||= requestAnimationFrame(onFrame);
    });
    return () => {
      stop();
      cancelAnimationFrame(scheduled);
    };
  }, [view, everyMs]);
}
