// Takes pictures of the main views for docs/screenshots: node look.mjs ADDRESS FOLDER [only,these]
import { existsSync } from 'node:fs';
import { chromium } from '@playwright/test';

const headless = '/usr/bin/chromium-headless-shell';

const [address, folder, only] = process.argv.slice(2);
const browser = await chromium.launch({
  executablePath: existsSync(headless) ? headless : '/usr/bin/chromium',
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

async function picture(name, path, { phone = false, dark = false, act, fullPage = false } = {}) {
  if (only && !only.split(',').includes(name)) return;
  const context = await browser.newContext({
    viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    deviceScaleFactor: phone ? 2 : 1,
    colorScheme: dark ? 'dark' : 'light',
    reducedMotion: 'reduce',
  });
  const page = await context.newPage();
  page.on('console', (m) => m.type() === 'error' && console.log(name, m.text()));
  page.on('pageerror', (e) => console.log(name, e.message));
  await page.goto(address + path);
  await page.getByRole('heading', { level: 1 }).or(page.getByTestId('sentence')).first().waitFor();
  if (act) await act(page);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(250);
  await page.screenshot({ path: `${folder}/${name}.png`, fullPage });
  await context.close();
}

const pulled = async (page, grams) => {
  await page.getByRole('button', { name: /make ready/ }).click();
  await page.waitForFunction(
    (g) => Number(document.querySelector('[data-testid=live-grams]')?.textContent) > g,
    grams,
    {
      timeout: 90000,
    },
  );
};

const sheet = (page) => page.getByRole('img', { name: /^Predicted shot/ }).waitFor();
await picture('prepare', '/prepare', { act: sheet });
await picture('why', '/prepare', {
  act: async (page) => {
    await page.getByRole('button', { name: /^Chance to land/ }).click();
    await page.getByText('How sure it is').waitFor();
  },
});
await picture('welcome', '/welcome');
await picture('prepare-phone', '/prepare', { phone: true, act: sheet });
await picture('prepare-dark', '/prepare', { dark: true, act: sheet });
await picture('plan', '/plans/early-peak', {
  act: async (page) => {
    await page.getByRole('slider', { name: /^Phase 3/ }).focus();
    await page.getByLabel('Compare with').selectOption({ label: 'Long and soft' });
    await page.getByText('Dashes and dots').waitFor();
  },
});
// a morning at the dipper, twenty minutes in
const post = (path, body) =>
  fetch(`${address}/api/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const put = (path, body) =>
  fetch(`${address}/api/${path}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
const json = async (path) => (await fetch(`${address}/api/${path}`)).json();
// in the place of whatever sheet there is
const putSheet = async (sheet) => put(`prepare?version=${(await json('prepare')).version}`, sheet);
async function morning() {
  const { sheet } = await json('prepare');
  await putSheet({ ...sheet, machineId: 2, doseGrams: 14, yieldGrams: 28, planKey: 'flat-firm' });
  const { wants, wantsVersion } = await json('session');
  const drinks = ['Ilva', 'Tomo', 'Guest', 'Guest'].map((name, i) => ({ for: name, milkGrams: i === 1 ? 150 : 0 }));
  await put(`session?version=${wantsVersion}`, { wants: { ...wants, drinks }, readyAt: null });
  for (const [key, secondsAgo] of [
    ['fill', 1210],
    ['on', 1200],
    ['bleed', 880],
    ['grind-1', 120],
  ])
    await post('session/done', { key, secondsAgo });
  for (const [value, secondsAgo] of [
    [58, 420],
    [66, 120],
  ])
    await post('session/readings', { kind: 'Strip', value, secondsAgo });
  return sheet;
}
if (!only || only.includes('warm')) {
  const before = await morning();
  await picture('warm', '/warm');
  await post('session/end', {});
  await putSheet(before);
}
await picture('machine', '/machines/3');
/** A machine of a family on the sheet. */
async function onto(family) {
  const find = async () => (await json('bench')).machines.find((m) => m.spec.family === family);
  if (!(await find())) {
    const start = (await json('machines/starts')).find((x) => x.start.defaults.family === family).start;
    await post('bench/machines', { name: 'Rucksack pump', spec: start.defaults });
  }
  const machine = await find();
  await putSheet({ ...machine.start, machineId: machine.id });
}
for (const [name, family, grams, card] of [
  ['pull', 'PortableLever', 14, false],
  ['pull-spring', 'BoilerSpring', 16, true],
]) {
  if (only && !only.split(',').includes(name)) continue;
  await onto(family);
  await picture(name, '/pull', {
    act: async (page) => {
      await pulled(page, grams);
      if (card) await page.getByRole('button', { name: 'Show the indicator card' }).click();
    },
  });
  await fetch(`${address}/api/pull/discard?forGood=true`, { method: 'POST' });
}
await onto('PortableLever');
await picture('pull-phone', '/pull', { phone: true, act: (page) => pulled(page, 8) });
if (!only || only.includes('pull-phone')) await fetch(`${address}/api/pull/discard?forGood=true`, { method: 'POST' });
await picture('practice', '/practice', { act: (page) => page.getByText('next for you').waitFor() });
await picture('taste', '/taste/14', {
  fullPage: true,
  act: async (page) => {
    await page.getByRole('button', { name: 'Use this for the next shot' }).waitFor();
    await page.getByText('Pull it again').click();
    await page.getByRole('img', { name: /^Predicted shot/ }).waitFor();
  },
});
await picture('ledger', '/ledger');
await picture('compare', '/ledger/compare?ids=14%2C10', {
  fullPage: true,
  act: (page) => page.getByText('Not explained', { exact: true }).first().waitFor(),
});
await picture('trends', '/ledger/trends?beans=1&machine=1', {
  act: (page) => page.getByText('What goes with liking').waitFor(),
});
await picture('arm', '/ledger/arm', {
  act: (page) =>
    page
      .getByLabel(/eight in ten/)
      .first()
      .waitFor(),
});
await picture('card', '/taste/55/card', { act: (page) => page.getByTestId('card').waitFor() });
await picture('care', '/care?machine=2');
await browser.close();
