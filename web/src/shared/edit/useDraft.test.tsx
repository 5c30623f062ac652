// @vitest-environment jsdom
import { act, createElement } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, test } from 'vitest';
import { useDraft } from './useDraft';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

type Taste = { sour: number | null; words: readonly string[] };

function drafted(now: Taste) {
  let draft!: ReturnType<typeof useDraft<Taste>>;
  const Form = () => {
    draft = useDraft(now);
    return null;
  };
  const root = createRoot(document.createElement('div'));
  act(() => root.render(createElement(Form)));
  return () => draft;
}

test('what is typed while something is being saved stays', () => {
  const draft = drafted({ sour: null, words: [] });
  act(() => draft().set({ sour: 1, words: ['plum'] }));
  const sent = draft().value;
  act(() => draft().set({ sour: 3 }));
  act(() => draft().kept(sent));
  expect(draft().typed).toEqual({ sour: 3 });
});

test('what is kept is no longer a draft', () => {
  const draft = drafted({ sour: null, words: [] });
  act(() => draft().set({ sour: 2, words: ['plum'] }));
  act(() => draft().kept(draft().value));
  expect(draft().typed).toEqual({});
});
