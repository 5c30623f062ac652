import { describe, expect, it } from 'vitest';
import { button, checkmark, input, textarea } from './recipes';
import { recipesMadeOnce } from './recipesMadeOnce';
import { wholeSystem } from './system';

const kit = wholeSystem();
const quick = recipesMadeOnce(kit);
const choices = [{}, { variant: 'strong' }, { variant: 'quiet', size: 'big' }, { size: 'big', colorPalette: 'gray' }];
// in their order too: of two styles for the same thing the later one counts
const told = (styles: unknown) => JSON.stringify(styles);

describe.each([
  ['button', button],
  ['checkmark', checkmark],
  ['input', input],
  ['textarea', textarea],
] as const)('%s made once', (_, recipe) => {
  it.each(choices)('is what the kit makes of %j', (choice) => {
    expect(told(quick.cva(recipe as never)(choice as never))).toBe(told(kit.cva(recipe as never)(choice as never)));
  });

  it('is made once', () => expect(quick.cva(recipe as never)).toBe(quick.cva(recipe as never)));
});
