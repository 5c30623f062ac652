import { readFile } from 'node:fs/promises';
import {
  clearPull,
  Household,
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  expectSaid,
  expectStopSaid,
  live,
  noteSayings,
  stopPull,
  takeMachine,
  tasted,
  test,
  type,
  whoAndWhat,
  sayClock,
} from './bench';

/** One person's whole job: from the bench to a tasted shot beside another one. */
test('from the sheet to the ledger and the comparison', async ({ page }, info) => {
  const words = `walnut and smoke, ${info.project.name}`;
  await clearPull(page);
  const outside: string[] = [];
  page.on('request', (r) => {
    if (
      !r.url().startsWith('http://127.0.0.1') &&
      !r.url().startsWith('ws://127.0.0.1') &&
      !/^(data|blob):/.test(r.url())
    )
      outside.push(r.url());
  });
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));

  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Prepare', level: 1 })).toBeVisible();
  await whoAndWhat(page, async (panel) => {
    await panel.getByLabel('Machine', { exact: true }).selectOption({ label: 'Pack lever' });
    await panel.getByLabel('Who brews').selectOption({ label: 'Ilva' });
    await panel.getByLabel('Beans').selectOption({ index: 1 });
    await panel.getByLabel('Grinder').selectOption({ label: 'Hand mill' });
    await expectAccessible(page);
  });
  await type(page, /^Dose/, '15');
  await type(page, /^Yield/, '30');
  await type(page, /^Grind/, '20');
  await page.getByRole('radio', { name: 'Early peak, long ease', exact: true }).check();

  // the answers: 30 / 15, and 30 + 1.05 * 15 + 5 g of water
  await expect(page.getByText('1 : 2.00')).toBeVisible();
  await expect(page.getByText('51', { exact: true })).toBeVisible();
  const force = page.getByRole('button', { name: /^Hand force/ });
  await expect(force).toHaveText(/17\s*kgf/);
  // and why
  await force.click();
  const card = page.getByRole('dialog', { name: 'Hand force' });
  await expect(card).toContainText('Pressure times piston area');
  await expect(card).toContainText('Peak pressure8.0 bar');
  await page.keyboard.press('Escape');
  await expect(force).toBeFocused();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);

  await noteSayings(page);
  await page.getByRole('button', { name: 'Go to the pull' }).click();
  await expectSaid(page, /hold 2\.5 bar until first drops/i);
  await expect.poll(() => live(page, 'pressure')).toBeGreaterThan(2);
  await expect.poll(() => live(page, 'force')).toBeGreaterThan(2);
  await expectSaid(page, /ease to/i);
  // the coach counts down and says when to let go
  await expectStopSaid(page);
  await stopPull(page);
  await expect(page).toHaveURL(/\/taste\/\d+/);
  const number = /\/taste\/(\d+)/.exec(page.url())![1]!;
  const { shot } = await (await page.request.get(`/api/shots/${number}`)).json();
  expect(shot.measures.secondsFromLever).toBeGreaterThan(5);
  await expect(page.getByRole('heading', { name: `Shot ${number}` })).toBeVisible();
  for (const clock of ['From lever', 'From pressure', 'From first drops', 'First drops', 'R10'])
    await expect(page.getByText(clock).first()).toBeVisible();
  await tasted(page, 'Sweet', 'clear');
  await tasted(page, 'Liking', 'good');
  await page.getByLabel('In your words').fill(words);
  await page.getByRole('button', { name: 'Save the taste' }).click();
  await expect(page.getByText('Saved.')).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);

  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Trace as CSV' }).click();
  const text = await readFile((await (await download).path())!, 'utf8');
  expect(text.split('\r\n')[0]).toBe('time (s),pressure (bar),weight (g),temperature (degC)');
  expect(text.split('\r\n').length).toBeGreaterThan(100);

  await page.getByRole('link', { name: 'Ledger' }).click();
  await expect(page.getByRole('link', { name: number, exact: true })).toBeVisible();
  await page.getByLabel('Search words, people, coffees').fill(`walnut ${info.project.name}`);
  await expect(page.getByText('1 shot', { exact: true })).toBeVisible();
  await page.getByLabel('Search words, people, coffees').fill('');
  await page.getByLabel(`Compare shot ${number}`).check();
  await page
    .getByLabel(/^Compare shot/)
    .nth(1)
    .check();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await page.getByRole('button', { name: 'Compare 2' }).click();
  await expect(page.getByTestId('overlay')).toBeVisible();
  await expect(page.getByRole('button', { name: `A, shot ${number}` })).toBeVisible();
  await page.getByLabel('Align at').selectOption('drops');
  await expect(page.getByTestId('overlay')).toHaveAttribute('aria-label', /first drops/);
  await page.getByLabel('Against').selectOption('grams');
  await expect(page.getByTestId('overlay')).toHaveAttribute('aria-label', /grams in the cup/);
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  expect(outside).toEqual([]);
  expect(errors).toEqual([]);
});

test('a trace from elsewhere becomes a shot like any other', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await page.goto('/ledger/import');
  const rows = Array.from({ length: 180 }, (_, i) => {
    const t = i * 0.2;
    const bar = t < 8 ? 2.5 : t < 12 ? 2.5 + (t - 8) * 1.3 : Math.max(0, 7.7 - (t - 12) * 0.15);
    const grams = Math.max(0, (t - 8.5) * 1.15);
    return `${(t * 1000).toFixed(0)};${(bar / 0.0689475729).toFixed(1)};${grams.toFixed(1)}`.replaceAll('.', ',');
  });
  await page.getByLabel('File').setInputFiles({
    name: 'elsewhere.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Zeit_ms;Druck_psi;Gewicht_g\n${rows.join('\n')}\n`),
  });
  await sayClock(page);
  await expect(page.getByText('separated by semicolon, decimal comma')).toBeVisible();
  await expect(page.getByLabel('Unit of Zeit_ms')).toHaveValue('ms');
  await expect(page.getByLabel('Unit of Druck_psi')).toHaveValue('psi');
  await expect(page.getByText(/peak 7\.[5-9] bar/)).toBeVisible();

  // a wrong unit is caught and can be put right
  await page.getByLabel('Unit of Druck_psi').selectOption('bar');
  await expect(page.getByText(/must lie between -1 and 25 bar/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save the shot' })).toBeDisabled();
  await page.getByLabel('Unit of Druck_psi').selectOption('psi');
  await page.getByRole('button', { name: 'Save the shot' }).click();
  await expect(page).toHaveURL(/\/taste\/\d+/);
  await expect(page.getByText(/Imported from elsewhere\.csv/)).toBeVisible();

  // into the bin and back
  await page.getByRole('button', { name: 'Delete', exact: true }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('imported').filter({ visible: true }).first()).toBeVisible();
});

test('a number that does not do is told and kept as typed', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await page.goto('/prepare');
  await takeMachine(page, 'Pack lever');
  await type(page, /^Dose/, '99');
  await expect(page.getByText('Dose is 99 g; it must lie between 5 and 30 g.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go to the pull' })).toBeDisabled();
  await page.reload();
  await expect(page.getByRole('textbox', { name: /^Dose/ })).toHaveValue('99');
  await type(page, /^Dose/, '15,5'); // a decimal comma is understood
  await type(page, /^Yield/, '70');
  await expect(page.getByText(/Does not fit: the chamber takes/)).toBeVisible();
  await type(page, /^Yield/, '32');
  await expect(page.getByText('1 : 2.06')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Go to the pull' })).toBeEnabled();
});

test('a reloaded page finds the pull as it is', async ({ page }) => {
  // slow enough that the pull is still going on when a busy machine has loaded the page again
  const home = new Household();
  try {
    await home.open(3);
    home.instruments(3);
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'grams'), { timeout: 60_000 }).toBeGreaterThan(3);
    const before = await live(page, 'seconds');
    await page.reload();
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThanOrEqual(before);
    // what the plan wanted of the phases that are past stands on the trace from its beginning
    const bandStarts = () =>
      page
        .getByTestId('plan-band')
        .evaluate((band) => Number(/^M(-?[\d.]+)/.exec(band.getAttribute('d') ?? '')?.[1] ?? 1e9));
    const plotLeft = 38;
    await expect.poll(bandStarts).toBeLessThan(plotLeft + 12);
    const drawn = await page
      .getByRole('img', { name: /Pressure, cup and flow/ })
      .locator('path')
      .evaluateAll((all) => Math.max(...all.map((p) => p.getAttribute('d')?.length ?? 0)));
    expect(drawn).toBeGreaterThan(400);
    // thrown away by a button of its own, away from the keys; it lies in the bin and can be taken back
    await page.getByRole('button', { name: 'Delete this pull' }).click();
    await expect(page.getByRole('button', { name: /make ready/ })).toBeVisible();
    await expect(page.getByText(/it is in the bin as shot \d+/)).toBeVisible();
    await page.getByRole('button', { name: 'Restore' }).click();
    await expect(page).toHaveURL(/\/taste\/\d+/);
  } finally {
    await home.close();
  }
});
