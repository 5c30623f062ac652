import { decimalSign } from './decimalSign';

/** The sign before the tenths where this person lives: a comma or a point. */
const ours = decimalSign(typeof navigator === 'undefined' ? 'en' : navigator.language);

// a date as 28.11.2026, a version or an address has more points than one, and stays
const decimals = /(?<![\d.])(\d+)\.(\d+)(?!\.?\d)/g;

/** A text with the decimals of its numbers as the person's locale has them; the core and the wire write a point. */
export const withOurDecimals = (text: string, sign = ours) => (sign === ',' ? text.replace(decimals, '$1,$2') : text);

/** A number as it stands in a field. */
export const ownText = (value: number) => withOurDecimals(String(value));

/** A number's text with a minus as long as a plus, as it is read; what is typed has the keyboard's. */
export const withMinus = (text: string) => text.replace('-', '\u2212');

/** A number as it is read. */
export const readText = (value: number) => withMinus(ownText(value));

/** A number with so many figures, and no zeros at its end. */
export const toFigures = (figures: number, value: number) => ownText(Number(value.toPrecision(figures)));

/** A number with so many decimals at most. */
export const toDecimals = (digits: number, value: number) => ownText(Number(value.toFixed(digits)));

/** The number that was typed, with a decimal point or comma; null for what is none. */
export function typedNumber(text: string): number | null {
  const value = Number(text.replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
}
