// What a page of the same libraries costs at the least: one button of the kit. The first page's budget is held against it.
import { Button, ChakraProvider, createSystem, defaultBaseConfig } from '@chakra-ui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';

const router = createBrowserRouter([{ path: '*', element: <Button>Ready</Button> }]);

createRoot(document.getElementById('root')!).render(
  <ChakraProvider value={createSystem(defaultBaseConfig)}>
    <QueryClientProvider client={new QueryClient()}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </ChakraProvider>,
);
