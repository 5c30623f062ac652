import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import ICAL from 'ical.js';
import { expect, expectAccessible, expectNoSidewaysScroll, test } from './bench';

const desktop = (name: string) => test.skip(name === 'phone', 'the same on a wide screen');

test('awkward CSV files that others published are read cell by cell', async ({ page }, info) => {
  desktop(info.project.name);
  await page.goto('/ledger');
  const folder = dirname(createRequire(import.meta.url).resolve('csv-spectrum/package.json'));
  const names = readdirSync(join(folder, 'csvs'));
  expect(names.length).toBeGreaterThan(10);
  for (const file of names) {
    const told: unknown = JSON.parse(readFileSync(join(folder, 'json', file.replace('.csv', '.json')), 'utf8'));
    const expected = [told].flat() as Record<string, string>[];
    const answer = await page.request.post('/api/exchange/logbook/preview', {
      data: { fileName: file, contentBase64: readFileSync(join(folder, 'csvs', file)).toString('base64') },
    });
    const seen = await answer.json();
    expect(answer.status(), `${file}: ${JSON.stringify(seen)}`).toBe(200);
    const columns = seen.answers.columns as { name: string }[];
    // line ends inside a cell may be either, as in the file
    // a long cell is shown by its beginning
    const shown = 40;
    const plain = (text: string) => {
      const trimmed = text.replaceAll('\r\n', '\n').trim();
      return trimmed.length > shown ? `${trimmed.slice(0, shown)}...` : trimmed;
    };
    const rows = seen.firstRows.map((row: string[]) =>
      Object.fromEntries(columns.map((c, i) => [c.name, (row[i] ?? '').replaceAll('\r\n', '\n').trim()])),
    );
    const wanted = expected
      .slice(0, 6)
      .map((row) => Object.fromEntries(Object.entries(row).map(([key, value]) => [key, plain(value)])));
    // of one file the published answer has another number and stray bytes
    if (file === 'location_coordinates.csv')
      expect(rows[0]).toMatchObject({ Cities: 'Modesto', Counties: 'Stanislaus' });
    else expect(rows, file).toEqual(wanted);
  }
});

test('a session plan is a calendar to a parser that knows nothing of us', async ({ page }, info) => {
  desktop(info.project.name);
  await page.goto('/warm');
  const text = await (await page.request.get('/api/session/plan.ics')).text();
  const calendar = new ICAL.Component(ICAL.parse(text));
  const events = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  expect(events.length).toBeGreaterThan(2);
  for (const event of events) {
    expect(event.summary.length).toBeGreaterThan(3);
    expect(event.endDate.toUnixTime()).toBeGreaterThan(event.startDate.toUnixTime());
  }
  expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
});

test('the example of the line protocol is heard as it stands in the document', async ({ page }, info) => {
  desktop(info.project.name);
  const document = await readFile(new URL('../../docs/line-protocol.md', import.meta.url), 'utf8');
  const code = /```js\n([\s\S]*?)```/.exec(document)![1]!;
  expect(
    code
      .trim()
      .split('\n')
      .filter((l) => l.trim()).length,
  ).toBeLessThanOrEqual(14);
  const folder = mkdtempSync(join(tmpdir(), 'ruddy-example-'));
  writeFileSync(join(folder, 'gauge.mjs'), code);
  await page.goto('/pull');
  const client = spawn(process.execPath, [join(folder, 'gauge.mjs'), new URL(page.url()).origin]);
  try {
    await expect(page.getByText('Home-made gauge').first()).toBeVisible({ timeout: 20_000 });
  } finally {
    client.kill();
    rmSync(folder, { recursive: true });
  }
});

const logbook = `Date,Time of day,Beans,Setting,Dose,Out,Seconds,Rating,Notes
2025-03-20,06:10,Larch,19,15.2,33,42,8,nutty
2025-03-21,06:15,Larch,18.5,15,n/a,47,9,
2025-03-22,06:20,Larch,18.5,15,31,44,6,sharp
`;

test('a spreadsheet becomes shots: columns, clock, faulty rows, and the next one without a question', async ({
  page,
}, info) => {
  const text = logbook.replaceAll('2025', info.project.name === 'phone' ? '2024' : '2025');
  await page.goto('/ledger/exchange');
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await page.getByRole('link', { name: 'Import a logbook' }).click();
  const give = (body: string) =>
    page
      .getByLabel('File', { exact: true })
      .setInputFiles({ name: 'book.csv', mimeType: 'text/csv', buffer: Buffer.from(body) });
  await give(text);
  await expect(page.getByText('Match the columns')).toBeVisible();
  const clock = page.getByLabel('The clock starts at');
  if ((await clock.inputValue()) === '') {
    await expect(page.getByText('Choose one: the times mean nothing without it.')).toBeVisible();
    await clock.selectOption({ label: 'first pressure' });
  }
  const faulty = page.getByRole('checkbox', { name: 'Leave out the 1 row that cannot be read' });
  await expect(faulty).toBeVisible();
  if (!(await faulty.isChecked())) {
    await expect(page.getByText('Line 3, Out: "n/a" is not a number.')).toBeVisible();
    await faulty.focus();
    await page.keyboard.press('Space');
  }
  const save = page.getByRole('button', { name: 'Save 2 shots' });
  await expect(save).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await save.click();
  await expect(page.getByText('2 shots stored, 1 rows left out.')).toBeVisible();
  await give(text.replaceAll('-03-', '-04-'));
  await expect(page.getByText('read as the last file with these columns was')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save 2 shots' })).toBeVisible();
  await page.goto('/ledger?search=larch');
  await expect(page.locator('tbody tr').first()).toContainText('Larch');
  expect(info.errors).toHaveLength(0);
});

test('a household goes out to a file and is brought into an empty bench', async ({ page, browser }, info) => {
  desktop(info.project.name);
  const { Household } = await import('./bench');
  await page.goto('/ledger/exchange');
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Whole household as JSON' }).click();
  const path = (await (await saved).path())!;
  const counted = (await (await page.request.get('/api/shots?size=1')).json()).total as number;
  const empty = new Household('nothing');
  await empty.open(1);
  try {
    const other = await browser.newPage({ baseURL: empty.url });
    await other.goto('/ledger/exchange');
    await other.getByLabel('Household file (JSON)').setInputFiles(path);
    const table = other.getByRole('region', { name: 'Contents of the file' });
    await expect(table).toContainText('shots');
    await expect(other.getByLabel('Take its name, place, units and words too')).toBeChecked();
    await other.getByRole('button', { name: 'Save' }).click();
    await expect(other.getByText(new RegExp(`^Stored: .*${counted} shots`))).toBeVisible({ timeout: 30_000 });
    await other.goto('/ledger');
    await expect(other.getByText(`${counted} shots`)).toBeVisible();
    await expect(other.getByText('Hut at the saddle')).toBeVisible();
    await other.close();
  } finally {
    await empty.close();
  }
});

test('a card is saved as PNG and SVG, and prints on one sheet', async ({ page, browser }, info) => {
  desktop(info.project.name);
  for (const address of ['/taste/55/card', '/ledger/compare/card?ids=55,52,49']) {
    await page.goto(address);
    await expect(page.getByTestId('card')).toBeVisible();
    await expectAccessible(page);
    const file = async (name: string) => {
      const saved = page.waitForEvent('download');
      await page.getByRole('button', { name }).click();
      return readFile((await (await saved).path())!);
    };
    const png = await file('Save as PNG');
    expect(png.subarray(0, 8).toString('latin1')).toBe('\x89PNG\r\n\x1a\n');
    expect(png.readUInt32BE(16)).toBe(1760); // width in its header
    expect(png.length).toBeGreaterThan(20_000);
    const svg = await file('Save as SVG');
    const folder = mkdtempSync(join(tmpdir(), 'ruddy-card-'));
    writeFileSync(join(folder, 'card.svg'), svg.toString('utf8'));
    // by itself, without any of the page's styles
    const alone = await browser.newPage();
    await alone.goto(`file://${join(folder, 'card.svg')}`);
    await expect(alone.locator('text').first()).toHaveText(/Shot 55|3 shots/);
    const stroke = await alone
      .locator('path[style*="stroke:rgb"]')
      .first()
      .evaluate((p) => getComputedStyle(p).stroke);
    expect(stroke).toMatch(/^rgb/);
    await alone.close();
    rmSync(folder, { recursive: true });
    const sheet = (await page.pdf({ format: 'A4' })).toString('latin1');
    expect(/\/Count (\d+)/.exec(sheet)?.[1]).toBe('1');
  }
  expect(info.errors).toHaveLength(0);
});
