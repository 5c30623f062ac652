import { number } from '../shared/units/units';

const units = ['kB', 'MB', 'GB', 'TB'] as const;

/** A size as people read it: three figures at most, in thousands. */
export function bytes(size: number): string {
  let value = size / 1000;
  let unit = 0;
  while (value >= 999.5 && unit < units.length - 1) {
    value /= 1000;
    unit += 1;
  }
  return `${number(value, value < 9.95 && unit > 0 ? 1 : 0)} ${units[unit]}`;
}
