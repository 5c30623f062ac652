import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from '@playwright/test';

const port = Number(process.env.RUDDY_E2E_PORT ?? 5291);
// one folder for the whole run; workers read the same configuration again
process.env.RUDDY_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'ruddy-e2e-'));
const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');
const program = (name: string) => join(root, 'src', name, 'bin', 'Release', 'net10.0', `RuddySpring.${name}.dll`);

export default defineConfig({
  testDir: '.',
  fullyParallel: false,
  workers: 1,
  retries: 0,
  timeout: 120_000,
  expect: { timeout: 10_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/report.json' }]],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
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
  },
  projects: [
    { name: 'desktop', use: { viewport: { width: 1280, height: 800 } } },
    { name: 'phone', use: { viewport: { width: 390, height: 844 }, hasTouch: true, deviceScaleFactor: 2 } },
  ],
  webServer: [
    {
      command: `dotnet ${program('Server')} --port ${port} --data ${process.env.RUDDY_E2E_DATA} --speed 4`,
      url: `http://127.0.0.1:${port}/api/household`,
      reuseExistingServer: false,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    },
    {
      // four times as fast as life, so that a pull takes ten seconds; no probe on the group, so that a test reads what it types
      command: `dotnet ${program('Instruments')} --server ws://127.0.0.1:${port}/instruments --speed 4 --clock-speed 4 --seed 11 --group-probe no`,
      gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
    },
  ],
});
