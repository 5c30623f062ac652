import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

// the same browser without its windows and tabs: a new page costs a tenth of the work
const headless = '/usr/bin/chromium-headless-shell';

export default defineConfig({
  testDir: '.',
  globalSetup: './sample.ts',
  fullyParallel: false,
  workers: 2,
  retries: 0,
  timeout: 240_000,
  // two browsers, two servers and their instruments share two cores here; how fast it all is, ./measure says
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? (existsSync(headless) ? headless : '/usr/bin/chromium'),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
    screenshot: 'only-on-failure',
    reducedMotion: 'reduce',
    // it keeps the page while the server is away; one test is about that
    serviceWorkers: 'block',
  },
  projects: [
    { name: 'desktop', use: { viewport: { width: 1280, height: 800 } } },
    { name: 'phone', use: { viewport: { width: 390, height: 844 }, hasTouch: true } },
  ],
});
