import type { SystemContext } from '@chakra-ui/react';
import { serializeStyles } from '@emotion/serialize';
import { describe, expect, it } from 'vitest';
import table from './generated/styles.json';
import { knownStyles, partAsked, recipeAsked, stylesAsked } from './knownStyles';
import { parts, workedOut } from './system';

const kit = workedOut();
type Made = (choice: object) => object;
type Asked = unknown[] | { recipe: object; choice: object } | { part: string; choice: object };

const cva = (system: SystemContext, config: object) => system.cva(config as never) as unknown as Made;
const css = (system: SystemContext, ...args: unknown[]) => system.css(...(args as Parameters<typeof system.css>));
const part = (system: SystemContext, name: string) =>
  (name in parts.recipes ? system.getRecipeFn(name) : system.getSlotRecipeFn(name)) as unknown as Made & {
    splitVariantProps: (props: object) => unknown;
    classNameMap?: object;
    variantKeys: string[];
    className?: string;
    variantMap: object;
  };

/** What the kit answers to a question, in the form in which the table has it. */
function answer(asked: string): object | boolean {
  if (!/^[[{]/.test(asked)) return kit.isValidProperty(asked);
  const question = JSON.parse(asked) as Asked;
  if (Array.isArray(question)) {
    const { name, styles } = serializeStyles([css(kit, ...question)]);
    return { name, styles };
  }
  return 'part' in question ? part(kit, question.part)(question.choice) : cva(kit, question.recipe)(question.choice);
}

describe('the table of styles', () => {
  // made again with tests/e2e/styles.mjs, and filled in with: npx vitest run src/theme/knownStyles.test.ts --update
  it('says what the kit answers', async () => {
    expect(Object.keys(table).length).toBeGreaterThan(100);
    const made = Object.fromEntries(Object.keys(table).map((asked) => [asked, answer(asked)]));
    await expect(JSON.stringify(made, null, 1) + '\n').toMatchFileSnapshot('generated/styles.json');
  });
});

describe('a system that knows its styles', () => {
  const own = { base: { color: 'text', paddingX: '3' }, variants: { tone: { strong: { bg: 'oxide' } } } };
  const styles = [cva(kit, own)({ tone: 'strong' }), { marginTop: '2', _hover: { color: 'quiet' } }];
  const known = {
    [stylesAsked(styles)]: { name: 'x', styles: 'color:red;' },
    [recipeAsked(own, { tone: 'strong' })]: { a: 'b' },
    [partAsked('button', { variant: 'strong' })]: { c: 'd' },
    marginTop: false,
  };
  const fresh = (answers = {}) => {
    let made = 0;
    const make = () => (made++, workedOut());
    return { system: knownStyles(make, answers, parts, { _global: [] }), made: () => made };
  };

  it('is not made for what is in its table', () => {
    const { system, made } = fresh(known);
    expect(css(system, ...styles)).toEqual({ name: 'x', styles: 'color:red;' });
    expect(cva(system, own)({ tone: 'strong', colorPalette: undefined })).toEqual({ a: 'b' });
    expect(part(system, 'button')({ variant: 'strong' })).toEqual({ c: 'd' });
    expect(system.isValidProperty('marginTop')).toBe(false);
    expect(system._global).toEqual([]);
    expect(made()).toBe(0);
  });

  it('is made once for the rest', () => {
    const { system, made } = fresh(known);
    const other = [styles[0], { marginTop: '3', _hover: { color: 'quiet' } }];
    expect(css(system, ...other)).toEqual(css(kit, ...other));
    expect(cva(system, own)({})).toEqual(cva(kit, own)({}));
    expect(part(system, 'button')({})).toEqual(part(kit, 'button')({}));
    expect(['paddingX', 'title', 'constructor'].map(system.isValidProperty)).toEqual([true, false, false]);
    expect(system.token('colors.text')).toEqual(kit.token('colors.text'));
    expect(made()).toBe(1);
  });

  it('has each recipe once', () => {
    const { system } = fresh();
    expect(system.cva(own)).toBe(system.cva(own));
    expect(system.getRecipeFn('button')).toBe(system.getRecipeFn('button'));
  });

  it.each([...Object.keys(parts.recipes), ...Object.keys(parts.slotRecipes)])(
    'tells of %s what the kit tells',
    (name) => {
      const { system, made } = fresh();
      const [ours, theirs] = [part(system, name), part(kit, name)];
      const props = {
        size: 'big',
        variant: 'quiet',
        title: 'a',
        recipe: {},
        orientation: 'horizontal',
        colorPalette: 'gray',
      };
      for (const given of [props, { children: 'x' }, {}])
        expect(ours.splitVariantProps(given)).toEqual(theirs.splitVariantProps(given));
      expect(ours.variantKeys).toEqual(theirs.variantKeys);
      const names = name in parts.recipes ? 'className' : 'classNameMap';
      expect(ours[names]).toEqual(theirs[names]);
      expect(made()).toBe(0);
      // in their order too: of two styles for the same thing the later one counts
      expect(JSON.stringify(ours(props))).toBe(JSON.stringify(theirs(props)));
      expect(ours.variantMap).toEqual(theirs.variantMap);
    },
  );
});
