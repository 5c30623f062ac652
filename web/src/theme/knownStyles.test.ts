import { serializeStyles } from '@emotion/serialize';
import { describe, expect, it } from 'vitest';
import table from './generated/styles.json';
import { knownStyles, recipeAsked, stylesAsked, type StyleTable } from './knownStyles';
import { workedOut } from './system';

const kit = workedOut();
type Css = typeof kit.css;
type Config = Parameters<typeof kit.cva>[0];

/** What the kit makes of a question, in the form in which the table has it. */
function answer(asked: string): object {
  const question = JSON.parse(asked) as
    Parameters<Css> | { recipe: Config; choice: Parameters<ReturnType<typeof kit.cva>>[0] };
  if (!Array.isArray(question)) return kit.cva(question.recipe)(question.choice);
  const { name, styles } = serializeStyles([kit.css(...question)]);
  return { name, styles };
}

describe('the table of styles', () => {
  // made anew with tests/e2e/styles.mjs, and filled in with: npx vitest run src/theme/knownStyles.test.ts --update
  it('says what the kit makes of each', async () => {
    expect(Object.keys(table).length).toBeGreaterThan(50);
    const made = Object.fromEntries(Object.keys(table).map((asked) => [asked, answer(asked)]));
    await expect(JSON.stringify(made, null, 1) + '\n').toMatchFileSnapshot('generated/styles.json');
  });
});

describe('a system that knows its styles', () => {
  const base = { base: { color: 'text', paddingX: '3' }, variants: { tone: { strong: { bg: 'oxide' } } } };
  const strong = kit.cva(base)({ tone: 'strong' });
  const props = [strong, { marginTop: '2', _hover: { color: 'quiet' } }] as Parameters<Css>;
  const known: StyleTable = {
    [stylesAsked(props)]: { name: 'x', styles: 'color:red;' },
    [recipeAsked(base, { tone: 'strong' })]: { a: 'b' },
  };
  const system = knownStyles(kit, known);

  it('takes what is in its table', () => {
    expect(system.css(...props)).toEqual({ name: 'x', styles: 'color:red;' });
    expect(system.cva(base)({ tone: 'strong', colorPalette: undefined } as never)).toEqual({ a: 'b' });
  });

  it('asks the kit for the rest', () => {
    const other = { marginTop: '3', _hover: { color: 'quiet' } };
    expect(system.css(strong, other)).toEqual(kit.css(strong, other));
    expect(system.cva(base)({})).toEqual(kit.cva(base)({}));
    expect(system.getRecipeFn('button')({})).toEqual(kit.getRecipeFn('button')({}));
  });

  it('has each recipe once, with all that belongs to it', () => {
    expect(system.cva(base)).toBe(system.cva(base));
    expect(system.getRecipeFn('button')).toBe(system.getRecipeFn('button'));
    expect(system.cva(base).variantKeys).toEqual(['tone']);
    expect(system.getRecipeFn('button').splitVariantProps({ size: 'big', title: 'a' } as never)).toEqual(
      kit.getRecipeFn('button').splitVariantProps({ size: 'big', title: 'a' } as never),
    );
  });
});
