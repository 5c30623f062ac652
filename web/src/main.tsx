import './theme/letters.css';
import './theme/generated/ground.css';
import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode, useLayoutEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { App, fetchPage } from './App';
import { drawingBegins, drawn } from './shared/api/firstPaint';
import { takeEarly } from './shared/api/queries';
import { predictionOf } from './shared/sheet/prediction';
import { UnitsOfBrewer } from './shared/units/units';
import { system } from './theme/system';
import { family } from './theme/type';

// the server is this machine or one in the house: whether the internet is there says nothing of it
const queries = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 2000, retry: 1, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

/** How long an empty page waits for its answers before it says that it waits, ms. */
const patience = 300;

/** Tells when the page is drawn. */
function Drawn() {
  useLayoutEffect(() => void drawn(), []);
  return null;
}

const draw = () => {
  drawingBegins();
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <ChakraProvider value={system}>
        <QueryClientProvider client={queries}>
          <UnitsOfBrewer>
            <App />
          </UnitsOfBrewer>
        </QueryClientProvider>
      </ChakraProvider>
      <Drawn />
    </StrictMode>,
  );
};

// the letters are asked for now: a first layout that asks for them itself is made with the system's, and then once more
void document.fonts.load(`1em ${family}`);

// drawn once and whole: a frame that waits for its page and the page for its numbers are three drawings, which a slow
// phone takes a second longer for
const told = takeEarly(queries).then((sheet) => {
  // the shot that it would make is worked out while the page is drawn
  if (sheet && location.pathname === '/prepare') void queries.prefetchQuery(predictionOf(sheet));
});
void Promise.race([Promise.allSettled([fetchPage(), told]), new Promise((late) => setTimeout(late, patience))]).then(
  draw,
);

// only where nobody can change the page on its way: HTTPS, or this machine itself
if (import.meta.env.PROD && isSecureContext && 'serviceWorker' in navigator)
  addEventListener('load', () => void navigator.serviceWorker.register('/service-worker.js').catch(() => undefined));
