import type { Page } from '@playwright/test';
import { expect, expectAccessible, frames, Household, live, saveNow, test, type } from './bench';

/** A key that is held down, as a cat lies on it: the first press and what the keyboard repeats of it. */
async function hold(page: Page, key: string, repeats: number) {
  for (let i = 0; i < repeats; i++) await page.keyboard.down(key);
  await page.keyboard.up(key);
}

/** A household of its own without instruments, at life's speed. */
async function bare(run: (home: Household) => Promise<void>) {
  const home = new Household();
  try {
    await home.open(1);
    await run(home);
  } finally {
    await home.close();
  }
}

test.beforeEach(({}, info) => {
  test.skip(info.project.name === 'phone', 'a phone has no keyboard');
});

test('a cat on the keyboard starts one pull, and space stops it whichever button has the focus', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await expect(page.getByRole('button', { name: /make ready/ })).toBeVisible();
    await hold(page, ' ', 30);
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    await hold(page, ' ', 30);
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(0.3);
    await hold(page, 'd', 30);
    // a button that was clicked keeps the focus; its own key is enter
    await page.getByRole('button', { name: /^Blonding/ }).click();
    await expect(page.getByRole('button', { name: /Blonding/ })).toHaveAttribute('aria-pressed', 'true');
    const running = await live(page, 'seconds');
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(running + 0.3);
    await page.keyboard.press(' ');
    await expect(page.getByText(/last drops are being weighed/)).toBeVisible();
    await saveNow(page);
    expect((await (await page.request.get(`${home.url}/api/shots?size=1`)).json()).total).toBe(
      (await (await page.request.get(`${home.url}/api/shots?size=200`)).json()).shots.length,
    );
  });
});

test('holding T ticks one step off, and a name is typed without losing a letter', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/warm`);
    await page.getByRole('button', { name: 'Keep this plan' }).click();
    await expect(page.getByTestId('step-title')).toBeVisible();
    await page.getByRole('button', { name: /^When and for whom/ }).click();
    const name = page.getByLabel('Drink 1 for');
    await name.fill('');
    // every letter goes to the server while the next is typed
    await name.pressSequentially('Wendelin of the upper pasture', { delay: 15 });
    await expect(name).toHaveValue('Wendelin of the upper pasture');
    const session = async () => await (await page.request.get(`${home.url}/api/session`)).json();
    await expect.poll(async () => (await session()).wants.drinks[0].for).toBe('Wendelin of the upper pasture');
    await page.getByRole('button', { name: 'How the bench works' }).click();
    await type(page, /^Dose/, '');
    await expect(page.getByText(/until then it is/)).toBeVisible();
    await page.getByRole('textbox', { name: /^Dose/ }).pressSequentially('17');
    await expect(page.getByRole('textbox', { name: /^Dose/ })).toHaveValue('17');
    await expect.poll(async () => (await session()).wants.doseGrams).toBe(17);
    await page.getByRole('button', { name: 'Done', exact: true }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await hold(page, 't', 40);
    const touched = async () =>
      (await session()).steps.filter((s: { state: string }) => s.state === 'Done' || s.state === 'UnderWay')
        .length as number;
    await expect.poll(touched).toBe(1);
    await frames(page, 20);
    expect(await touched()).toBe(1);
  });
});

test('the question mark lists the keys, and single letters can be switched off', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    await page.keyboard.press(' ');
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
    await page.keyboard.press('?');
    const help = page.getByRole('dialog', { name: 'Keys on this page' });
    await expect(help.getByText('Stop the pull').first()).toBeVisible();
    await expect(help.getByText('Mark: first drops')).toBeVisible();
    await expectAccessible(page);
    // nothing works behind it
    await page.keyboard.press('s');
    await help.getByLabel('Single-letter shortcuts').uncheck();
    await page.keyboard.press('Escape');
    await expect(help).toHaveCount(0);
    await page.keyboard.press('s');
    await page.keyboard.press('d');
    const seconds = await live(page, 'seconds');
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(seconds + 0.4);
    await expect(page.getByRole('button', { name: /^First drops/ })).toHaveAttribute('aria-pressed', 'false');
    await page.keyboard.press(' ');
    await saveNow(page);
    await page.goto(`${home.url}/settings`);
    await expect(page.getByLabel('Single-letter shortcuts')).not.toBeChecked();
  });
});

test('a page that breaks leaves the strip, the other pages and a running pull alone', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    await page.keyboard.press(' ');
    const stop = page.getByRole('button', { name: /^Stop/ });
    await expect(stop).toBeVisible();
    const pull = page.url();
    await page.route('**/api/practice', (route) => route.fulfill({ json: { lessons: [{ key: 7 }], next: null } }));
    await page.getByRole('link', { name: 'Practice' }).click();
    await expect(page.getByRole('heading', { name: 'This page stopped working' })).toBeVisible();
    await expect(page.getByText(/a pull under way goes on/)).toBeVisible();
    // not a word of a programmer's reaches the page
    await expect(page.locator('main')).not.toContainText(/undefined|TypeError|Cannot read/);
    await page.getByRole('link', { name: 'Shelf' }).click();
    await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible();
    await page.goto(pull);
    await expect(stop).toBeVisible();
    expect(await live(page, 'seconds')).toBeGreaterThan(0.3);
  });
});

test('who changes a bag that was changed meanwhile is told, and what was typed stays', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/shelf`);
    await page.getByRole('button', { name: 'Change Saddle Wind' }).click();
    await page.getByLabel('Coffee', { exact: true }).fill('Saddle Wind, second sack');
    const { bags } = await (await page.request.get(`${home.url}/api/bench`)).json();
    const bag = bags.find((b: { name: string }) => b.name === 'Saddle Wind');
    const other = await page.request.patch(`${home.url}/api/bench/bags/${bag.id}?version=${bag.version}`, {
      data: { gramsLeft: 123 },
    });
    expect(other.ok()).toBe(true);
    await page.getByRole('button', { name: 'Save the bag' }).click();
    await expect(page.getByText(/was changed on another screen meanwhile/)).toBeVisible();
    await expect(page.getByLabel('Coffee', { exact: true })).toHaveValue('Saddle Wind, second sack');
    await expect(page.getByRole('textbox', { name: /^Left in the bag/ })).toHaveValue('123');
    await page.getByRole('button', { name: 'Save the bag' }).click();
    await expect(page.getByRole('button', { name: 'Change Saddle Wind, second sack' })).toBeVisible();
    const after = (await (await page.request.get(`${home.url}/api/bench`)).json()).bags.find(
      (b: { id: number }) => b.id === bag.id,
    );
    expect(after.gramsLeft).toBe(123);
  });
});

test('a pull that cannot be stored is kept, taken along as a file, and saved when there is room again', async ({
  page,
}) => {
  await bare(async (home) => {
    await page.route('**/api/pull/save*', (route) =>
      route.fulfill({
        status: 507,
        contentType: 'application/problem+json',
        json: { status: 507, detail: 'The disk is full. Nothing was changed; make room and try again.' },
      }),
    );
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    await page.keyboard.press(' ');
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(1.2);
    await page.keyboard.press(' ');
    await expect(page.getByText('The disk is full. Nothing was changed; make room and try again.')).toBeVisible();
    await expect(page.getByText(/The pull is not lost/)).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Trace as CSV' }).click();
    expect((await download).suggestedFilename()).toMatch(/^pull-[0-9a-f]{32}\.csv$/);
    await page.unroute('**/api/pull/save*');
    await page.getByRole('button', { name: 'Retry' }).click();
    await expect(page).toHaveURL(/\/taste\/\d+/);
  });
});
