import { defineSlotRecipe } from '@chakra-ui/react';
import { wide } from './type';

const backdrop = { position: 'fixed', inset: 0, bg: 'rgb(0 0 0 / 45%)', zIndex: 20 } as const;
const sheet = {
  position: 'relative',
  bg: 'panel',
  color: 'text',
  borderColor: 'edge',
  display: 'flex',
  flexDirection: 'column',
  maxHeight: '100dvh',
  outline: 0,
} as const;
const header = {
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'space-between',
  gap: '3',
  px: { base: '3', md: '5' },
  pt: '4',
  pb: '2',
} as const;
const body = { px: { base: '3', md: '5' }, pb: '5', overflowY: 'auto', minHeight: 0 } as const;
const footer = {
  display: 'flex',
  gap: '2',
  flexWrap: 'wrap',
  px: { base: '3', md: '5' },
  py: '3',
  borderTopWidth: '1px',
  borderColor: 'hairline',
} as const;
const title = { ...wide, fontSize: '19px', lineHeight: 1.2 } as const;

/** The parts of what lies over a page. */
const slots = [
  'trigger',
  'backdrop',
  'positioner',
  'content',
  'title',
  'description',
  'closeTrigger',
  'header',
  'body',
  'footer',
];

/** A question or a form over the page. */
export const dialog = defineSlotRecipe({
  className: 'dialog',
  slots,
  base: {
    backdrop,
    positioner: { position: 'fixed', inset: 0, zIndex: 21, display: 'grid', placeItems: 'center', p: '3' },
    content: { ...sheet, borderWidth: '1px', borderRadius: 'small', width: '100%', maxWidth: '560px' },
    header,
    title,
    body,
    footer,
  },
});

/** What is changed beside the page. */
export const drawer = defineSlotRecipe({
  className: 'drawer',
  slots,
  base: {
    backdrop,
    positioner: { position: 'fixed', inset: 0, zIndex: 21, display: 'flex', justifyContent: 'flex-end' },
    content: { ...sheet, borderInlineStartWidth: '1px', width: '100%', maxWidth: '520px', height: '100dvh' },
    header,
    title,
    body: { ...body, flex: 1 },
    footer,
  },
});

/** A small card at what it explains. */
export const popover = defineSlotRecipe({
  className: 'popover',
  slots: [
    'arrow',
    'arrowTip',
    'anchor',
    'trigger',
    'indicator',
    'positioner',
    'content',
    'title',
    'description',
    'closeTrigger',
    'header',
    'body',
    'footer',
  ],
  base: {
    positioner: { zIndex: 25 },
    content: {
      bg: 'panel',
      color: 'text',
      borderWidth: '1px',
      borderColor: 'edge',
      borderRadius: 'small',
      p: '4',
      width: 'min(400px, calc(100vw - 24px))',
      maxHeight: '70vh',
      overflowY: 'auto',
      fontSize: '14px',
      boxShadow: '0 2px 10px rgb(0 0 0 / 25%)',
      outline: 0,
    },
    title: { ...title, fontSize: '16px', mb: '1' },
  },
});

/** What is rarely needed, behind one line. */
export const collapsible = defineSlotRecipe({
  className: 'collapsible',
  slots: ['root', 'trigger', 'content', 'indicator'],
  base: {
    root: { minWidth: 0 },
    trigger: {
      display: 'flex',
      width: '100%',
      alignItems: 'center',
      justifyContent: 'flex-start',
      gap: '2',
      minHeight: '44px',
      textAlign: 'start',
      fontWeight: 650,
      cursor: 'pointer',
    },
    indicator: {
      color: 'quiet',
      display: 'inline-flex',
      '& svg': { width: '18px', height: '18px' },
      _open: { transform: 'rotate(90deg)' },
    },
  },
});

/** A word at the edge of the window about what was just done. */
export const toast = defineSlotRecipe({
  className: 'toast',
  slots: ['root', 'title', 'description', 'indicator', 'closeTrigger', 'actionTrigger'],
  base: {
    root: {
      display: 'flex',
      gap: '3',
      alignItems: 'center',
      width: 'min(440px, calc(100vw - 24px))',
      bg: 'panel',
      color: 'text',
      borderWidth: '1px',
      borderColor: 'edge',
      borderInlineStartWidth: '4px',
      borderInlineStartColor: 'resistance',
      borderRadius: 'small',
      ps: '4',
      pe: '2',
      py: '2',
      boxShadow: '0 2px 10px rgb(0 0 0 / 25%)',
      zIndex: 40,
    },
    title: { flex: 1 },
    actionTrigger: {
      minHeight: '44px',
      px: '3',
      fontWeight: 650,
      textDecoration: 'underline',
      textUnderlineOffset: '3px',
      cursor: 'pointer',
    },
    closeTrigger: {
      minHeight: '44px',
      minWidth: '44px',
      display: 'inline-flex',
      alignItems: 'center',
      justifyContent: 'center',
      cursor: 'pointer',
    },
  },
});

/** Views of one thing, one at a time. */
export const tabs = defineSlotRecipe({
  className: 'tabs',
  slots: ['root', 'trigger', 'list', 'content', 'contentGroup', 'indicator'],
  base: {
    root: { minWidth: 0 },
    list: {
      display: 'flex',
      flexWrap: 'wrap',
      gap: '1',
      borderBottomWidth: '1px',
      borderColor: 'hairline',
      mb: '3',
    },
    trigger: {
      minHeight: '44px',
      px: '3',
      fontWeight: 650,
      color: 'quiet',
      cursor: 'pointer',
      borderBottomWidth: '3px',
      borderColor: 'transparent',
      _selected: { color: 'text', borderColor: 'oxide' },
    },
    content: { outline: 0 },
  },
});

/** How far something is that takes a while. */
export const progress = defineSlotRecipe({
  slots: ['root', 'track', 'range', 'label', 'valueText', 'view', 'circle', 'circleTrack', 'circleRange'],
  className: 'progress',
  base: {
    root: { display: 'grid', gap: '1' },
    track: { height: '10px', bg: 'page', borderWidth: '1px', borderColor: 'edge', overflow: 'hidden' },
    range: { height: '100%', bg: 'oxide', transition: 'width 0.2s' },
    valueText: { fontVariantNumeric: 'tabular-nums' },
  },
});
