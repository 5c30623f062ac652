import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, Household, live, stopPull, test, usualSpeed } from './bench';

/** Most presses from an empty bench to a finished pull, and the time it may take a person who reads: two minutes. */
const mostPresses = 20;
const longestMs = 120_000;

async function onAnEmptyBench(page: Page, act: (home: Household) => Promise<void>) {
  const home = new Household('nothing');
  await home.open(usualSpeed);
  try {
    await page.goto(home.url);
    await act(home);
  } finally {
    await home.close();
  }
}

test('from an empty bench to a pull in a few presses', async ({ page }) => {
  await onAnEmptyBench(page, async (home) => {
    home.instruments(usualSpeed, 5);
    let presses = 0;
    const began = Date.now();
    const press = async (name: string | RegExp) => {
      presses++;
      await page.getByRole('button', { name }).first().click();
    };
    await expect(page.getByRole('heading', { name: 'Welcome', level: 1 })).toBeVisible();
    await expectAccessible(page);
    await expectNoSidewaysScroll(page);
    await press(/^Section: Portable lever, kettle-filled/);
    await page.getByRole('textbox', { name: 'Height above sea level' }).fill('1200');
    await expectAccessible(page);
    await press('Next');
    await page.getByLabel('a gauge of the brew pressure').check();
    presses++;
    await expectAccessible(page);
    await press('Next');
    await page.getByLabel('Coffee').fill('Larch and Ash');
    await page.getByLabel('Grinder').fill('Drawer mill');
    await expectAccessible(page);
    await expectNoSidewaysScroll(page);
    await press('Plan the first shot');
    // planned: on this machine, of these beans, at this height
    await expect(page.getByTestId('who')).toContainText('Larch and Ash, 0 days');
    await expect(page.getByTestId('who')).toContainText('Drawer mill');
    await expect(page.getByRole('img', { name: /^Predicted shot/ })).toBeVisible();
    const { altitudeMetres } = await (await page.request.get(`${home.url}/api/household`)).json();
    expect(altitudeMetres).toBe(1200);
    await press('Go to the pull');
    await expect.poll(() => live(page, 'grams'), { timeout: 60_000 }).toBeGreaterThan(3);
    presses++;
    await stopPull(page);
    await expect(page).toHaveURL(/\/taste\/\d+/);
    expect(presses).toBeLessThanOrEqual(mostPresses);
    expect(Date.now() - began).toBeLessThan(longestMs);
  });
});

test('both beans and grinder can wait, and a step can be taken again', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await onAnEmptyBench(page, async (home) => {
    await page.getByRole('button', { name: /^Section: Hand-pump portable/ }).click();
    await page.getByRole('button', { name: 'Back' }).click();
    await page.getByRole('button', { name: /^Section: Boiler lever with a spring/ }).click();
    // a measured boiling point changes the household at once, which must not stand in the way at the end
    await page.getByLabel(/a thermometer in boiling water reads/).fill('97');
    await page.getByRole('button', { name: 'Use it' }).click();
    await expect(page.getByText(/That is \d+ m above sea level/)).toBeVisible();
    // a height that no machine stands at is told at the end, and nothing is lost
    await page.getByRole('textbox', { name: 'Height above sea level' }).fill('99999');
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('button', { name: 'Skip this and plan the first shot' }).click();
    await expect(page.getByRole('alert')).toContainText('must lie between');
    await page.getByRole('button', { name: /Where it stands/ }).click();
    await page.getByRole('textbox', { name: 'Height above sea level' }).fill('300');
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('button', { name: 'Next' }).click();
    await page.getByRole('textbox', { name: 'Coffee' }).fill('Larch and Ash');
    // something goes wrong half way, and is tried again: nothing is there twice
    await page.route('**/api/bench/machines', (route) => route.abort(), { times: 1 });
    await page.getByRole('button', { name: 'Plan the first shot' }).click();
    await expect(page.getByRole('alert')).toBeVisible();
    await page.getByRole('button', { name: 'Plan the first shot' }).click();
    await expect(page.getByTestId('who')).toContainText('Boiler lever with a spring');
    const bench = await (await page.request.get(`${home.url}/api/bench`)).json();
    expect([bench.bags.length, bench.machines.length]).toEqual([1, 1]);
    await expect(page.getByRole('button', { name: 'Go to the pull' })).toBeEnabled();
  });
});

test('the sample household is one press away and back, and leaves no trace', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await onAnEmptyBench(page, async (home) => {
    await page.getByRole('button', { name: 'Look around a sample household' }).click();
    await expect(page.getByText('You are looking around a made-up household.', { exact: false })).toBeVisible();
    expect(new URL(page.url()).origin).not.toBe(home.url);
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Dose more' }).click();
    const sample = new URL(page.url()).origin;
    expect((await (await page.request.get(`${sample}/api/shots`)).json()).total).toBeGreaterThan(20);
    await page.getByRole('link', { name: 'Back to my bench' }).click();
    await expect(page.getByRole('heading', { name: 'Welcome', level: 1 })).toBeVisible();
    expect(new URL(page.url()).origin).toBe(home.url);
    expect((await (await page.request.get(`${home.url}/api/shots`)).json()).total).toBe(0);
    // it is gone: nobody answers there
    await expect(async () => {
      const answered = await page.request.get(`${sample}/api/household`).then(
        () => true,
        () => false,
      );
      expect(answered).toBe(false);
    }).toPass();
  });
});

test('every empty place says what it is for', async ({ page }) => {
  await onAnEmptyBench(page, async (home) => {
    for (const [path, words] of [
      ['/warm', 'Welcome'],
      ['/prepare', 'Welcome'],
      ['/pull', 'Welcome'],
      ['/taste', 'No shot yet'],
      ['/ledger', 'No shot yet'],
      ['/machines', 'No machine yet'],
    ] as const) {
      await page.goto(`${home.url}${path}`);
      await expect(page.getByRole('heading', { name: words })).toBeVisible();
    }
    await expectAccessible(page);
  });
});
