import type { RefObject } from 'react';

/** Writes a text into the page where it differs: setting the same again would be laid out again. */
export function writeText(ref: RefObject<Element | null>, text: string) {
  if (ref.current && ref.current.textContent !== text) ref.current.textContent = text;
}

/** Writes an attribute into the page where it differs. */
export function writeAttribute(ref: RefObject<Element | null>, name: string, value: string | number) {
  if (ref.current && ref.current.getAttribute(name) !== String(value)) ref.current.setAttribute(name, String(value));
}
