// @vitest-environment jsdom
import { act, createElement } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, test } from 'vitest';
import * as z from 'zod/mini';
import { useChecked } from './useChecked';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

type Taste = { sour: number | null; body: number | null; words: string[] };

const schema = z.object({
  sour: z.nullable(z.number()),
  body: z.nullable(z.number()),
  words: z.array(z.string().check(z.trim())),
});
const untasted: Taste = { sour: null, body: null, words: [] };

/** A form over something kept; what is kept can be changed from outside. */
function formOver(start: Taste) {
  let form!: ReturnType<typeof useChecked<Taste>>;
  const Form = ({ kept }: { kept: Taste }) => {
    form = useChecked<Taste>(schema, kept, kept);
    return null;
  };
  const root = createRoot(document.createElement('div'));
  const show = (kept: Taste) => act(() => root.render(createElement(Form, { kept })));
  show(start);
  return { now: () => form, show };
}

test('what is typed while something is being saved stays', () => {
  const { now } = formOver(untasted);
  act(() => {
    now().set('sour', 1);
    now().set('words', ['plum']);
  });
  const sent = structuredClone(now().form.getValues());
  act(() => now().set('sour', 3));
  act(() => now().keptAs(sent));
  expect(now().form.getValues()).toEqual({ sour: 3, body: null, words: ['plum'] });
  expect(now().typed()).toEqual({ sour: 3 });
});

test('what is kept is no longer typed', () => {
  const { now } = formOver(untasted);
  act(() => now().set('words', ['plum']));
  expect(now().changed).toBe(true);
  act(() => now().keptAs(structuredClone(now().form.getValues())));
  expect(now().typed()).toEqual({});
  expect(now().changed).toBe(false);
});

test('what somebody else keeps meanwhile is shown under what is typed', () => {
  const { now, show } = formOver(untasted);
  act(() => now().set('sour', 2));
  show({ ...untasted, body: 4 });
  expect(now().form.getValues()).toEqual({ sour: 2, body: 4, words: [] });
  expect(now().typed()).toEqual({ sour: 2 });
});

test('what is set back is no longer typed', () => {
  const { now } = formOver(untasted);
  act(() => now().set('sour', 2));
  act(() => now().set('sour', null));
  expect(now().typed()).toEqual({});
});

test('what was tidied on its way is not taken for something typed since', async () => {
  const { now } = formOver(untasted);
  act(() => now().set('words', ['plum ']));
  let sent!: Taste;
  await act(() => now().submit((_, all) => (sent = structuredClone(all)))());
  expect(sent.words).toEqual(['plum']);
  act(() => now().keptAs(sent));
  expect(now().form.getValues('words')).toEqual(['plum']);
  expect(now().changed).toBe(false);
});
