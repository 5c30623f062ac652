import { useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

let focusedAt: string | null = null;
let navigated = false;

/**
 * Names the browser's tab after a page, and moves the focus to the page's heading when one has come there from
 * another, so that whoever listens
 * or goes by keys begins where the page does. Give the ref to the heading.
 */
export function usePageName(title: string) {
  const heading = useRef<HTMLHeadingElement>(null);
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = `${title} - Ruddy Spring`;
  }, [title]);
  useEffect(() => {
    navigated ||= focusedAt !== null && focusedAt !== pathname;
    // a heading that takes the place of an earlier one takes its focus too
    const mine = focusedAt !== pathname || document.activeElement === document.body;
    focusedAt = pathname;
    if (navigated && mine) heading.current?.focus({ preventScroll: true });
  }, [pathname]);
  return heading;
}
