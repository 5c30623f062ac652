import { describe, expect, it } from 'vitest';
import { hasWord, withoutWord, withWord } from './words';

describe('words tapped into a note', () => {
  it('is found by itself only', () => {
    expect(hasWord('nuts, a bit Thin', 'thin')).toBe(false);
    expect(hasWord('Thin, nuts', 'thin')).toBe(true);
    expect(hasWord('', 'thin')).toBe(false);
  });

  it('goes in and comes out again, and leaves the rest', () => {
    for (const text of ['', 'nuts', 'nuts, long finish', 'first line\nsecond line']) {
      const longer = withWord(text, 'stone fruit');
      expect(hasWord(longer, 'stone fruit')).toBe(true);
      expect(withoutWord(longer, 'stone fruit')).toBe(text);
    }
    expect(withoutWord('thin, nuts; ash', 'thin')).toBe('nuts; ash');
    expect(withoutWord('thin, nuts; ash', 'nuts')).toBe('thin; ash');
    expect(withWord('nuts,', 'ash')).toBe('nuts, ash');
    expect(withoutWord('thinner', 'thin')).toBe('thinner');
  });
});
