import { describe, expect, it } from 'vitest';
import { readText, typedNumber, withOurDecimals } from './decimals';

describe('decimals', () => {
  it('are said with the sign of the locale, and nothing else is touched', () => {
    expect(withOurDecimals('wait 8.5 s, then 15.05 g at -0.5 K (9.0 bar)', ',')).toBe(
      'wait 8,5 s, then 15,05 g at -0,5 K (9,0 bar)',
    );
    expect(withOurDecimals('on 28.11.2026 at 127.0.0.1, version 10.0.4. Shot 5. 6 more', ',')).toBe(
      'on 28.11.2026 at 127.0.0.1, version 10.0.4. Shot 5. 6 more',
    );
    expect(withOurDecimals('8.5 s', '.')).toBe('8.5 s');
  });

  it('are understood with either sign', () => {
    expect(typedNumber('15,5')).toBe(15.5);
    expect(typedNumber(' 15.5 ')).toBe(15.5);
    expect(typedNumber('')).toBeNull();
    expect(typedNumber('15,5,5')).toBeNull();
  });
});

it('a number that is read has a true minus', () => {
  expect(readText(-0.5)).toBe('\u22120.5');
  expect(readText(2)).toBe('2');
});
