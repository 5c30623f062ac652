import { defineRecipe, defineSlotRecipe } from '@chakra-ui/react';

/** What a hand presses: 44 px at least, a hairline round it, one strong colour. */
export const button = defineRecipe({
  className: 'button',
  base: {
    display: 'inline-flex',
    alignItems: 'center',
    justifyContent: 'center',
    gap: '2',
    minHeight: '44px',
    px: '4',
    borderWidth: '1px',
    borderColor: 'edge',
    borderRadius: 'small',
    bg: 'panel',
    color: 'text',
    fontWeight: 650,
    cursor: 'pointer',
    textAlign: 'center',
    lineHeight: 1.15,
    _hover: { borderColor: 'text' },
    _disabled: { opacity: 0.5, cursor: 'default' },
  },
  variants: {
    variant: {
      strong: { bg: 'oxide', color: 'onOxide', borderColor: 'oxide', _hover: { borderColor: 'text' } },
      plain: {},
      quiet: {
        borderColor: 'transparent',
        bg: 'transparent',
        px: '2',
        textDecoration: 'underline',
        textUnderlineOffset: '3px',
      },
    },
    size: { usual: {}, big: { minHeight: '72px' } },
  },
  defaultVariants: { variant: 'plain', size: 'usual' },
});

const box = {
  width: '100%',
  minHeight: '44px',
  px: '3',
  bg: 'panel',
  color: 'text',
  borderWidth: '1px',
  borderColor: 'edge',
  borderRadius: 'small',
  fontSize: '16px',
  _invalid: { borderColor: 'oxide', borderWidth: '2px' },
} as const;

/** What is typed into. */
export const input = defineRecipe({ className: 'input', base: box });
export const textarea = defineRecipe({ className: 'textarea', base: { ...box, py: '2', resize: 'vertical' } });

/** One of several, with an arrow of our own. */
export const nativeSelect = defineSlotRecipe({
  className: 'native-select',
  slots: ['root', 'field', 'indicator'],
  base: {
    root: { position: 'relative', width: '100%', height: 'fit-content' },
    field: { ...box, pe: '8', appearance: 'none', textOverflow: 'ellipsis' },
    indicator: {
      position: 'absolute',
      insetEnd: '2',
      top: '50%',
      transform: 'translateY(-50%)',
      width: '20px',
      height: '20px',
      color: 'quiet',
      pointerEvents: 'none',
      '& svg': { width: '20px', height: '20px' },
    },
  },
});

/** A label, a word of help, what is wrong. */
export const field = defineSlotRecipe({
  className: 'field',
  slots: ['root', 'label', 'requiredIndicator', 'helperText', 'errorText'],
  base: {
    root: { minWidth: 0, width: '100%' },
    label: { display: 'block', fontSize: '13px', color: 'quiet', mb: '1' },
    helperText: { fontSize: '13px', mt: '1', color: 'quiet' },
    errorText: { fontSize: '13px', mt: '1', color: 'oxide' },
  },
});

/** The browser's own box lies unseen over the whole, so that a finger or a program meets it. */
const overAll = {
  inset: '0 !important',
  width: '100% !important',
  height: '100% !important',
  margin: '0 !important',
  clip: 'auto !important',
  opacity: 0,
  cursor: 'inherit',
} as const;

/** What is ticked or chosen, beside its word. */
const choice = {
  display: 'inline-flex',
  position: 'relative',
  gap: '2',
  alignItems: 'center',
  minHeight: '44px',
  cursor: 'pointer',
  _disabled: { opacity: 0.5, cursor: 'default' },
  '& input': overAll,
} as const;

const mark = {
  display: 'inline-flex',
  alignItems: 'center',
  justifyContent: 'center',
  flexShrink: 0,
  width: '20px',
  height: '20px',
  borderWidth: '1px',
  borderColor: 'edge',
  bg: 'panel',
  _focusVisible: { outline: '2px solid', outlineColor: 'text', outlineOffset: '2px' },
} as const;

/** Yes or no. */
export const checkbox = defineSlotRecipe({
  className: 'checkbox',
  slots: ['root', 'label', 'control', 'indicator', 'group'],
  base: {
    root: choice,
    control: {
      ...mark,
      borderRadius: 'small',
      color: 'onOxide',
      _checked: { bg: 'oxide', borderColor: 'oxide' },
      '& svg': { width: '14px', height: '14px' },
    },
  },
});

/** The mark alone, where the browser's own box is ticked. */
export const checkmark = defineRecipe({
  className: 'checkmark',
  base: {
    ...mark,
    borderRadius: 'small',
    color: 'onOxide',
    '& svg, &': { strokeWidth: 2.5 },
    _checked: { bg: 'oxide', borderColor: 'oxide' },
  },
});

/** One of a few. */
export const radioGroup = defineSlotRecipe({
  className: 'radio-group',
  slots: ['root', 'label', 'item', 'itemText', 'itemControl', 'indicator', 'itemAddon', 'itemIndicator'],
  base: {
    item: choice,
    itemControl: { ...mark, borderRadius: '50%', _checked: { borderWidth: '6px', borderColor: 'oxide' } },
  },
});

/** Rows on hairlines, figures of one width. */
export const table = defineSlotRecipe({
  className: 'table',
  slots: ['root', 'header', 'body', 'row', 'columnHeader', 'cell', 'footer', 'caption'],
  base: {
    root: { width: '100%', fontSize: '15px', borderCollapse: 'collapse', fontVariantNumeric: 'tabular-nums' },
    columnHeader: {
      color: 'quiet',
      fontWeight: 400,
      fontSize: '13px',
      textAlign: 'start',
      pe: '3',
      pb: '1',
      verticalAlign: 'bottom',
    },
    cell: {
      py: '2',
      pe: '3',
      borderTopWidth: '1px',
      borderColor: 'hairline',
      verticalAlign: 'top',
      textAlign: 'start',
    },
  },
});
