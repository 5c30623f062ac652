import { createSystem, defaultBaseConfig, defineConfig } from '@chakra-ui/react';
import styles from './generated/styles.json';
import { groundInFile } from './groundInFile';
import { knownStyles } from './knownStyles';
import { beyond, family, wide } from './type';
import { collapsible, dialog, drawer, popover, progress, tabs, toast } from './overlays';
import { button, checkbox, checkmark, field, input, nativeSelect, radioGroup, table, textarea } from './recipes';

/** How much of the plan's colour lies under its hatching. */
export const hatchGround = 0.1;

/** Zinc and oxide. Light and dark values of every colour; contrast is checked in colours.test.ts. */
export const colours = {
  page: { light: '#E8EBEB', dark: '#14181A' },
  panel: { light: '#F7F9F9', dark: '#1C2224' },
  hairline: { light: '#C6CDCD', dark: '#344043' },
  edge: { light: '#7C888B', dark: '#7F8D91' },
  text: { light: '#1E2426', dark: '#E9EEEE' },
  quiet: { light: '#4F5A5D', dark: '#A9B4B6' },
  oxide: { light: '#A8341C', dark: '#E8704F' },
  onOxide: { light: '#FFFFFF', dark: '#14181A' },
  pressure: { light: '#A8341C', dark: '#E8704F' },
  flow: { light: '#6B3F87', dark: '#BC98DA' },
  grams: { light: '#2B3336', dark: '#D5DCDD' },
  temperature: { light: '#B47B00', dark: '#D9A441' },
  temperatureText: { light: '#8F5A00', dark: '#D9A441' },
  resistance: { light: '#3F6C70', dark: '#8DBDC0' },
  plan: { light: '#667275', dark: '#8B999D' },
} as const;

const semantic = Object.fromEntries(
  Object.entries(colours).map(([name, value]) => [name, { value: { base: value.light, _dark: value.dark } }]),
);

/** Steps of 4 px, with halves. */
const spacing = Object.fromEntries(
  [0.5, 1, 1.5, 2, 2.5, 3, 4, 5, 6, 8].map((step) => [String(step), { value: `${step * 4}px` }]),
);

/** What stands under every part: it is the same for every page, so it comes as a file (generated/ground.css). */
const ground = defineConfig({
  preflight: true,
  globalCss: {
    'html, body, #root': { minHeight: '100%' },
    html: { colorScheme: 'light', '&.dark': { colorScheme: 'dark' } },
    body: { bg: 'page', color: 'text', fontFamily: 'body', fontSize: '15px', lineHeight: '1.45', margin: 0 },
    'h1, h2, h3': { ...wide, lineHeight: 1.2 },
    ':focus-visible': { outline: '2px solid', outlineColor: 'text', outlineOffset: '2px' },
    // where a page begins is told to those who listen; nobody goes there with a key
    'h1:focus-visible': { outline: 'none' },
    '*': { _motionReduce: { animation: 'none !important', transition: 'none !important' } },
    '.no-print': { _print: { display: 'none !important' } },
  },
});

/** The recipes of the kit's parts. */
export const parts = {
  recipes: { button, checkmark, input, textarea },
  slotRecipes: {
    checkbox,
    collapsible,
    dialog,
    drawer,
    field,
    nativeSelect,
    popover,
    progress,
    radioGroup,
    table,
    tabs,
    toast,
  },
};

const config = defineConfig({
  cssVarsPrefix: 'rs',
  theme: {
    breakpoints: { sm: '480px', md: '768px', lg: '1024px', xl: '1400px', '2xl': '2200px' },
    tokens: {
      fonts: { body: { value: `${family}, ${beyond}, system-ui, sans-serif` } },
      radii: { small: { value: '3px' } },
      spacing,
    },
    semanticTokens: { colors: semantic },
    ...parts,
  },
});

/** The theme with its ground, of which the test makes the file. */
export const wholeSystem = () => createSystem(defaultBaseConfig, config, ground);

/**
 * The theme whose styles the kit works out, of which the table is made. Its recipes are in no cascade layer: each rule
 * that is put into one has the browser order all layers again, and with them the letters, so that the whole page is
 * laid out again. What a part is given goes before its recipe all the same, as both are put together first; only what a
 * recipe says for wide screens would win against it, so what is often given stands as the part's own default and in no
 * recipe (see Panel and Button).
 */
export const workedOut = () => createSystem(defaultBaseConfig, config, { disableLayers: true });

/** The theme as pages use it: a slow phone draws sooner where it need not work out the ground and the first styles. */
export const system = knownStyles(workedOut, styles, parts, groundInFile);

/** CSS variable of a colour, for SVG. */
export const ink = (name: keyof typeof colours) =>
  `var(--rs-colors-${name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`)})`;
