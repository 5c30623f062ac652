import { useEffect, useRef, useState } from 'react';

const phoneBelow = 768;
const tabletBelow = 1024;
const least = 250;
const most = 1100;

/** Height of a row of big buttons with the space round it, px: what an instrument leaves below itself. */
export const keysHeight = 100;

/**
 * Height that an instrument can have so that all of it and what stands below it is in the window, whatever stands
 * above; and whether that is a
 * phone's window, where the page is scrolled and the height is the one given, or a tablet's that stands upright.
 */
export function useRoom<T extends HTMLElement>(below: number, phoneHeight: (windowHeight: number) => number) {
  const ref = useRef<T>(null);
  const [size, setSize] = useState({ phone: window.innerWidth < phoneBelow, tablet: false, height: least });
  useEffect(() => {
    const follow = () => {
      const element = ref.current;
      if (!element) return;
      const phone = window.innerWidth < phoneBelow;
      const top = element.getBoundingClientRect().top + window.scrollY;
      const room = Math.max(least, Math.min(most, Math.floor(window.innerHeight - top - below)));
      const height = phone ? phoneHeight(window.innerHeight) : room;
      const tablet = !phone && window.innerWidth < tabletBelow;
      setSize((now) =>
        now.phone === phone && now.tablet === tablet && now.height === height ? now : { phone, tablet, height },
      );
    };
    follow();
    // a strip or tabs that come or go above move it
    const moved = new ResizeObserver(follow);
    for (let e: HTMLElement | null = ref.current; e; e = e.parentElement) {
      moved.observe(e);
      for (let before = e.previousElementSibling; before; before = before.previousElementSibling) moved.observe(before);
    }
    window.addEventListener('resize', follow);
    return () => {
      moved.disconnect();
      window.removeEventListener('resize', follow);
    };
    // phoneHeight is a rule, not a value
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [below]);
  return { ref, ...size };
}
