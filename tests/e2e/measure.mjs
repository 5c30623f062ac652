// Measures what needs a browser: node measure.mjs ADDRESS [--quick|--full]; prints one JSON row a line. No stand-in may be connected.
// BARE is the address of a bare page of the same libraries, to hold the first page against; YEAR that of a household with a year of shots.
// While working on one of them: --only firstPage, workspace, overlay, typing, year or live; LIVE_SECONDS sets how long the last one takes.
import { chromium } from '@playwright/test';
import { firstPage } from './measure/firstPage.mjs';
import { live } from './measure/live.mjs';
import { overlay } from './measure/overlay.mjs';
import { typing } from './measure/typing.mjs';
import { workspace } from './measure/workspace.mjs';
import { year } from './measure/year.mjs';

const [address, mode] = process.argv.slice(2);
const only = process.argv.includes('--only') ? process.argv[process.argv.indexOf('--only') + 1] : null;
const browser = await chromium.launch({
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
});
const row = (name, value, unit, budget) =>
  console.log(JSON.stringify({ name, value: Math.round(value * 1000) / 1000, unit, budget, ok: value <= budget }));

// the server's own first requests are its start, measured elsewhere
for (const path of ['/prepare', '/ledger', '/ledger/compare?ids=3,4,5', '/pull']) {
  const page = await browser.newPage();
  await page.goto(address + path);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForTimeout(500);
  await page.close();
}

const measures = { firstPage, workspace, overlay, typing, year, live };
for (const [name, measured] of Object.entries(measures)) {
  if (only && only !== name) continue;
  await measured({
    browser,
    address,
    row,
    seconds: Number(process.env.LIVE_SECONDS ?? (mode === '--full' ? 600 : 20)),
  });
}
await browser.close();
