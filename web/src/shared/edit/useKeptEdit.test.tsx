// @vitest-environment jsdom
import { act, createElement, useState } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, test } from 'vitest';
import { useKeptEdit } from './useKeptEdit';

(globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;

test('what is typed never gives way to what was kept before it', async () => {
  let render: (kept: { text: string }) => void = () => undefined;
  let answer: () => void = () => undefined;
  let cache = { text: '' };
  const seen: string[] = [];
  let type: (letter: string) => void = () => undefined;

  function Form() {
    const [kept, setKept] = useState(cache);
    render = setKept;
    const edit = useKeptEdit<{ text: string }, { text: string }>({
      rendered: kept,
      kept: () => cache,
      send: (value) => new Promise((take) => (answer = () => take({ ...value }))),
      // the cache has it at once; it is rendered a moment later
      taken: (got) => (cache = got),
      outdated: () => undefined,
    });
    const shown = (edit.typed ?? kept).text;
    seen.push(shown);
    // a key goes into what is shown
    type = (letter) => edit.change(() => ({ text: shown + letter }));
    return null;
  }

  const root = createRoot(document.createElement('div'));
  await act(async () => root.render(createElement(Form)));
  await act(async () => type('a'));
  await act(async () => answer());
  // the server has taken it, the cache has not been rendered yet, and the next key comes
  expect(seen.at(-1)).toBe('a');
  await act(async () => type('b'));
  expect(seen.at(-1)).toBe('ab');
  await act(async () => render(cache));
  expect(seen.at(-1)).toBe('ab');
  await act(async () => answer());
  await act(async () => render(cache));
  expect(seen.at(-1)).toBe('ab');
  // and what somebody else makes of it later is shown
  await act(async () => render({ text: 'theirs' }));
  expect(seen.at(-1)).toBe('theirs');
});
