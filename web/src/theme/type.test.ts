import { describe, expect, it } from 'vitest';
import { strong } from './type';

const sources = import.meta.glob<string>(
  ['../**/*.ts', '../**/*.tsx', '!./type.ts', '!../**/*.test.*', '!../**/generated/**'],
  {
    query: '?raw',
    import: 'default',
    eager: true,
  },
);

/** Every number that is written for a property, anywhere in the page. */
function written(property: string, number: RegExp): string[] {
  const found = new Set<string>();
  for (const text of Object.values(sources))
    for (const [, value] of text.matchAll(new RegExp(`${property}[:=]([^,\\n]*)`, 'g')))
      for (const [one] of value!.matchAll(number)) found.add(one);
  return [...found].sort();
}

describe('the type family', () => {
  it('is used in two weights', () => {
    expect(written('fontWeight', /\b\d{3}\b(?!%)/g)).toEqual(['400', String(strong)]);
  });

  it('is wide and condensed by name alone, so that there are three widths', () => {
    expect(written('fontStretch', /\d+%/g)).toEqual(['100%']);
  });
});
