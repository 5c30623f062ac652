/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
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
            { name: 'shared', test: /src.shared/, minShareCount: 3 },
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
