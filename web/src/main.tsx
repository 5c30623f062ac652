import '@fontsource-variable/archivo/wdth.css';
import { ChakraProvider } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App, fetchPageOf } from './App';
import { askEarly } from './shared/api/queries';
import { UnitsOfBrewer } from './shared/units/units';
import { system } from './theme/system';

const queries = new QueryClient({ defaultOptions: { queries: { staleTime: 2000, retry: 1 } } });

fetchPageOf(location.pathname);
askEarly(queries);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ChakraProvider value={system}>
      <QueryClientProvider client={queries}>
        <UnitsOfBrewer>
          <App />
        </UnitsOfBrewer>
      </QueryClientProvider>
    </ChakraProvider>
  </StrictMode>,
);
