import type { SystemContext } from '@chakra-ui/react';

/** What the kit makes of style props and of recipes, by what it was asked (`stylesAsked` and `recipeAsked`). */
export type StyleTable = Readonly<Record<string, object>>;

type Css = SystemContext['css'];
type Recipe = ReturnType<SystemContext['cva']>;

/** What an element asks the kit for: the styles of its recipe and its own, the last of which counts most. */
export const stylesAsked = (args: Parameters<Css>) => JSON.stringify(args);

/** What a part asks its recipe for. */
export const recipeAsked = (config: unknown, choice: unknown) => JSON.stringify({ recipe: config, choice });

/** Hears what is asked for, where someone listens: of that the table is made, and a test sees whether it fits. */
const listener = (globalThis as { stylesAsked?: string[] }).stylesAsked;

/**
 * A system that looks up what is in the table and works out the rest. The kit works styles out by code that is not yet
 * compiled when a page is first drawn, which took a sixth of its time. An element's styles are in the table as the
 * style library's own serialized styles, which it takes as they are.
 */
export function knownStyles(system: SystemContext, table: StyleTable): SystemContext {
  const find = (asked: string) => {
    listener?.push(asked);
    return table[asked];
  };
  const css = (...args: Parameters<Css>) => find(stylesAsked(args)) ?? system.css(...args);

  const known = (recipe: Recipe, config: unknown): Recipe =>
    Object.assign(((choice) => find(recipeAsked(config, choice ?? {})) ?? recipe(choice)) as Recipe, recipe);
  const made = new WeakMap<Recipe, Recipe>();
  const once = (recipe: Recipe, config: unknown) => {
    const before = made.get(recipe);
    if (before) return before;
    const now = known(recipe, config);
    made.set(recipe, now);
    return now;
  };
  const cva = (config: Parameters<SystemContext['cva']>[0] = {}) => once(system.cva(config), config);
  const getRecipeFn: SystemContext['getRecipeFn'] = (key, fallback) =>
    once(system.getRecipeFn(key, fallback), system.getRecipe(key, fallback));
  return { ...system, css: css as Css, cva: cva as SystemContext['cva'], getRecipeFn };
}
