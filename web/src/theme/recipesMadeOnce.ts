import type { SystemContext } from '@chakra-ui/react';

type Recipe = ReturnType<SystemContext['cva']>;

/**
 * The kit works a recipe out anew for every element that is drawn; here each is worked out once. A page of 200 elements stands
 * a good deal sooner for it.
 */
export function recipesMadeOnce(system: SystemContext): SystemContext {
  const made = new WeakMap<object, Recipe>();
  const once = (config: Parameters<SystemContext['cva']>[0] = {}) => {
    let recipe = made.get(config);
    if (recipe === undefined) {
      recipe = system.cva(config);
      made.set(config, recipe);
    }
    return recipe;
  };
  return { ...system, cva: once as SystemContext['cva'] };
}
