import { useEffect, useState } from 'react';

const two = (value: number) => String(value).padStart(2, '0');

/** Seconds as minutes and seconds, 4:05; hours before them where there are any. */
export function minutes(seconds: number): string {
  const s = Math.max(0, Math.round(seconds));
  const rest = `${String(Math.floor(s / 60) % 60).padStart(s >= 3600 ? 2 : 1, '0')}:${two(s % 60)}`;
  return s >= 3600 ? `${Math.floor(s / 3600)}:${rest}` : rest;
}

/** The time of day of a moment, 07:30. */
export function timeOfDay(ms: number): string {
  const at = new Date(ms);
  return `${two(at.getHours())}:${two(at.getMinutes())}`;
}

/** A day as the person's locale has it, with its year. */
export const dayOf = (iso: string) =>
  new Date(iso.length === 10 ? `${iso}T12:00` : iso).toLocaleDateString([], { dateStyle: 'medium' });

/** A day and the time of day. */
export const momentOf = (iso: string) => `${dayOf(iso)}, ${timeOfDay(Date.parse(iso))}`;

/** A day as date fields have it, 2026-01-31; today's where none is given. */
export const fieldDay = (date = new Date()) =>
  `${String(date.getFullYear()).padStart(4, '0')}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;

/** Now in ms, ticking. */
export function useNow(everyMs = 500): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}
