// Makes the table of styles again: what the first page asks the kit for, at a desk and on a phone. Then run, in web/,
//   npx vitest run src/theme/knownStyles.test.ts --update
// which fills in what the kit makes of it.
//   node tests/e2e/styles.mjs http://127.0.0.1:5180
import { writeFileSync } from 'node:fs';
import { chromium } from '@playwright/test';

const address = process.argv[2];
if (!address) throw new Error('Give the address of an app with the demo data, such as http://127.0.0.1:5180');
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const asked = new Set();
for (const viewport of [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
]) {
  const page = await browser.newPage({ viewport });
  await page.addInitScript(() => (globalThis.stylesAsked = []));
  await page.goto(address);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForLoadState('networkidle');
  for (const key of await page.evaluate(() => globalThis.stylesAsked)) asked.add(key);
  await page.close();
}
await browser.close();
const table = Object.fromEntries([...asked].sort().map((key) => [key, null]));
writeFileSync(
  new URL('../../web/src/theme/generated/styles.json', import.meta.url),
  JSON.stringify(table, null, 1) + '\n',
);
console.log(`${asked.size} styles`);
