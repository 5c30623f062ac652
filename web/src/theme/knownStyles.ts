import type { SystemContext } from '@chakra-ui/react';

/**
 * The kit's answers, by what it was asked: styles and recipes by `stylesAsked`, `recipeAsked` and `partAsked`, and
 * whether a name is that of a style property by the name.
 */
export type StyleTable = Readonly<Record<string, object | boolean>>;

type Css = SystemContext['css'];
type Choice = Record<string, unknown>;
interface Config {
  className?: string;
  slots?: readonly string[];
  variants?: Record<string, unknown>;
  defaultVariants?: Choice;
}

/** What an element asks for: the styles of its recipe and its own, the last of which counts most. */
export const stylesAsked = (args: readonly unknown[]) => JSON.stringify(args);

/** What an element asks the recipe for that was made for it alone. */
export const recipeAsked = (recipe: unknown, choice: unknown) => JSON.stringify({ recipe, choice });

/** What one of the kit's parts asks the theme's recipe for. */
export const partAsked = (part: string, choice: unknown) => JSON.stringify({ part, choice });

/** Hears what is asked for, where someone listens: of that the table is made, and a test sees whether it fits. */
const listener = (globalThis as { stylesAsked?: string[] }).stylesAsked;

/** What is there, and where something else is looked for, the whole of it, which is made only then. */
const lazily = <T extends object>(there: Partial<T>, whole: () => T) =>
  new Proxy(there as T, { get: (part, key) => Reflect.get(key in part ? part : whole(), key) as unknown });

const once = <T>(make: () => T) => {
  let made: { it: T } | undefined;
  return () => (made ??= { it: make() }).it;
};

/** Props apart by what they choose of a recipe, as the kit splits them. */
const splitter = ({ variants = {}, defaultVariants }: Config) =>
  function splitVariantProps(props: Choice): [Choice, Choice] {
    const chosen: Choice = {};
    const rest: Choice = {};
    for (const [name, value] of Object.entries(props))
      if (name !== 'recipe') (name in variants ? chosen : rest)[name] = value;
    if (!('colorPalette' in variants)) chosen.colorPalette = props.colorPalette || defaultVariants?.colorPalette;
    if ('orientation' in variants) rest.orientation = props.orientation;
    return [chosen, rest];
  };

/**
 * A system that looks up what is in the table, and is made only when something else is asked for. Making the kit's
 * system and working styles out is done by code that is not yet compiled when a page is first drawn, which took a
 * quarter of the page's work. An element's styles are in the table as the style library's own serialized styles, which
 * it takes as they are. What else is known of the system can be given with it.
 */
export function knownStyles(
  make: () => SystemContext,
  table: StyleTable,
  parts: { recipes: Record<string, Config>; slotRecipes: Record<string, Config> },
  there: Partial<SystemContext> = {},
): SystemContext {
  const whole = once(make);
  const find = (asked: string) => {
    listener?.push(asked);
    return table[asked];
  };

  /** A recipe that is made only when something is asked of it that is not in the table. */
  const recipeOf = (config: Config, asked: (choice: unknown) => string, made: () => object) => {
    const real = once(made) as () => ((choice: Choice) => object) & object;
    const answer = (choice: Choice = {}) => find(asked(choice)) ?? real()(choice);
    const { slots, className } = config;
    const named = slots
      ? { classNameMap: Object.fromEntries(className ? slots.map((slot) => [slot, `${className}__${slot}`]) : []) }
      : { __cva__: true, className, config };
    const variantKeys = Object.keys(config.variants ?? {});
    return lazily(Object.assign(answer, named, { variantKeys, splitVariantProps: splitter(config) }), real);
  };

  const made = new WeakMap<object, object>();
  const cva = (config: Config = {}) => {
    let recipe = made.get(config);
    if (!recipe) {
      recipe = recipeOf(
        config,
        (choice) => recipeAsked(config, choice),
        () => whole().cva(config as never),
      );
      made.set(config, recipe);
    }
    return recipe;
  };

  const partsOf = (configs: Record<string, Config>, fallback: (key: string, other: unknown) => object) => {
    const known = new Map(
      Object.entries(configs).map(([key, config]) => [
        key,
        recipeOf(
          config,
          (choice) => partAsked(key, choice),
          () => fallback(key, undefined),
        ),
      ]),
    );
    return (key: string, other?: unknown) => known.get(key) ?? fallback(key, other);
  };

  return lazily<SystemContext>(
    {
      ...there,
      $$chakra: true,
      css: ((...args: Parameters<Css>) => find(stylesAsked(args)) ?? whole().css(...args)) as Css,
      cva: cva as SystemContext['cva'],
      getRecipeFn: partsOf(parts.recipes, (key, other) =>
        whole().getRecipeFn(key, other as never),
      ) as SystemContext['getRecipeFn'],
      getSlotRecipeFn: partsOf(parts.slotRecipes, (key, other) =>
        whole().getSlotRecipeFn(key, other as never),
      ) as SystemContext['getSlotRecipeFn'],
      isValidProperty: (name) => {
        const known = find(name);
        return typeof known === 'boolean' ? known : whole().isValidProperty(name);
      },
    },
    whole,
  );
}
