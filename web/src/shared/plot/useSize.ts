import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';

/** Width in CSS pixels of an element, followed as it changes. */
export function useWidth<T extends HTMLElement>(): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(0);
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
