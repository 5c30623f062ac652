/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The letters of every page: with them there before the first layout, it is the only one. */
const lettersFirst: Plugin = {
  name: 'letters-first',
  transformIndexHtml: {
    order: 'post',
    handler(_, { bundle }) {
      const font = Object.keys(bundle ?? {}).find((file) => /archivo-latin-wdth-normal.*woff2$/.test(file));
      const attrs = { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: '', href: `/${font}` };
      return font ? [{ tag: 'link', attrs, injectTo: 'head' }] : [];
    },
  },
};

/**
 * Tells the browser to compile every function while its file comes, beside the page's own thread, instead of each at its
 * first call on it. Functions that are never called are compiled too, by a thread that has nothing else to do then. The
 * hint is heeded as a file's first line only.
 */
const compiledAhead: Plugin = {
  name: 'compiled-ahead',
  generateBundle: {
    order: 'post',
    handler(_, bundle) {
      for (const chunk of Object.values(bundle))
        if (chunk.type === 'chunk') chunk.code = `//# allFunctionsCalledOnLoad\n${chunk.code}`;
    },
  },
};

export default defineConfig({
  plugins: [react(), lettersFirst, compiledAhead],
  build: {
    outDir: '../src/Server/wwwroot',
    emptyOutDir: true,
    sourcemap: false,
    target: 'es2023',
    chunkSizeWarningLimit: 700,
    // what several pages share comes in two files instead of forty: each small one costs a slow machine some milliseconds
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'kit', test: /node_modules.(@chakra-ui|@zag-js|@ark-ui|@emotion|lucide)/, minShareCount: 3 },
            // forms and what they stand on are not of the first page
            { name: 'shared', test: /src.shared.(?!edit.(useChecked|name))/, minShareCount: 3 },
          ],
        },
      },
    },
  },
  server: {
    proxy: {
      '/api': 'http://127.0.0.1:5180',
      '/live': { target: 'http://127.0.0.1:5180', ws: true },
    },
  },
  test: { environment: 'node', include: ['src/**/*.test.{ts,tsx}'] },
});
