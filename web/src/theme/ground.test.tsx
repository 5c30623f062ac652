// @vitest-environment jsdom
import { ChakraProvider } from '@chakra-ui/react';
import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { expect, it } from 'vitest';
import { wholeSystem } from './system';

// made again with: npx vitest run src/theme/ground.test.tsx --update
it('is in its file just as the kit would put it in', async () => {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  const root = createRoot(document.createElement('div'));
  await act(() => root.render(<ChakraProvider value={wholeSystem()}>{null}</ChakraProvider>));
  const rules = [...document.querySelectorAll('style[data-emotion]')].map((style) => style.textContent);
  expect(rules.length).toBeGreaterThan(3);
  await expect(rules.join('\n') + '\n').toMatchFileSnapshot('generated/ground.css');
});
