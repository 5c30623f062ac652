import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';

/**
 * Width in CSS pixels of an element, followed as it changes. With a good guess at it, what is drawn in it is drawn
 * once instead of after the rest of the page was laid out; a bad one is put right before anything is painted.
 */
export function useWidth<T extends HTMLElement>(guess: () => number = () => 0): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(guess);
  // known before the first paint, so that a chart is not painted empty first
  useLayoutEffect(() => setWidth(ref.current?.clientWidth ?? 0), []);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(Math.round(entry!.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}

/** From the edge of the page's own part to what stands in a panel, both sides together, px: on a phone, and wider. */
const [besideNarrow, besideWide] = [50, 82];

/** Width that a panel across the page has for what stands in it, px, as the page that is shown now has it. */
export function acrossThePage(): number {
  const page = document.getElementById('main')?.clientWidth ?? 0;
  return page && page - (matchMedia('(min-width: 768px)').matches ? besideWide : besideNarrow);
}
