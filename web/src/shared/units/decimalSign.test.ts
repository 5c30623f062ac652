import { describe, expect, it } from 'vitest';
import { decimalSign, known } from './decimalSign';

describe('the sign before the tenths', () => {
  it.each(['.', ','] as const)('is %s in the locales that are known to have it', (sign) => {
    for (const locale of known[sign].split(' ')) {
      expect(Intl.NumberFormat.supportedLocalesOf([locale]), locale).toEqual([locale]);
      expect((1.5).toLocaleString(locale), locale).toBe(`1${sign}5`);
    }
  });

  it('is asked for in all others', () => {
    expect(decimalSign('de-CH')).toBe('.');
    expect(decimalSign('en-ZA')).toBe(',');
    expect(decimalSign('af')).toBe(',');
    expect(decimalSign('es-PE')).toBe('.');
  });
});
