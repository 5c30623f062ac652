import type { Page } from '@playwright/test';
import { clearPull, expect, expectAccessible, expectNoSidewaysScroll, Household, live, test } from './bench';

interface Start {
  defaults: { family: string };
}
interface Machine {
  id: number;
  name: string;
  start: { yieldGrams: number } & Record<string, unknown>;
}

const families = [
  'BoilerDirect',
  'BoilerSpring',
  'PortableLever',
  'HeatedGroup',
  'TwinArmBasket',
  'TwinArmChamber',
  'SteppedLever',
  'HandPump',
];

/** A machine of a family on the sheet, with its own plan and usual dose. */
async function onTheSheet(page: Page, family: string): Promise<Machine> {
  const machines = async () => (await (await page.request.get('/api/bench')).json()).machines as Machine[];
  const name = `Trial ${family}`;
  if (!(await machines()).some((m) => m.name === name)) {
    const starts = (await (await page.request.get('/api/machines/starts')).json()) as { start: Start }[];
    const { start } = starts.find((s) => s.start.defaults.family === family)!;
    const made = await page.request.post('/api/bench/machines', { data: { name, spec: start.defaults } });
    expect(made.ok(), await made.text()).toBe(true);
  }
  const machine = (await machines()).find((m) => m.name === name)!;
  const kept = await page.request.put('/api/prepare', { data: { ...machine.start, machineId: machine.id } });
  expect(kept.ok(), await kept.text()).toBe(true);
  return machine;
}

for (const family of families) {
  test(`a whole pull on a ${family} from the first check to the shot`, async ({ page }, info) => {
    test.skip(info.project.name === 'phone' && family !== 'PortableLever', 'the same pull on the wide screen is enough');
    await clearPull(page);
    const machine = await onTheSheet(page, family);
    await page.goto('/pull');
    await expect(page.getByText(/The holder is fully seated and locked/)).toBeVisible();
    await expect(page.getByText(/The cup stands under it/)).toBeVisible();
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'pressure'), { timeout: 30_000 }).toBeGreaterThan(0.5);
    await expect(page.getByTestId('sentence')).toHaveAttribute('data-kind', /Soon|Stop/, { timeout: 60_000 });
    await page.keyboard.press('s');
    await expect(page).toHaveURL(/\/taste\/\d+/, { timeout: 15_000 });
    const id = /\/taste\/(\d+)/.exec(page.url())![1];
    const { shot, origins } = await (await page.request.get(`/api/shots/${id}`)).json();
    expect(shot.measures.cupGrams).toBeGreaterThan(machine.start.yieldGrams - 9);
    expect(shot.measures.cupGrams).toBeLessThan(machine.start.yieldGrams + 9);
    expect(origins.map((o: { origin: string }) => o.origin)).toContain('Measured');
  });
}

/** A household without instruments, for a test of its own. */
async function bare(run: (home: Household) => Promise<void>) {
  const home = new Household();
  try {
    await home.open(4);
    await run(home);
  } finally {
    await home.close();
  }
}

test('a gauge that only eyes can read is followed by keys and by the slider', async ({ page }) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    const needle = page.getByLabel('Pressure on the gauge\u2019s needle').or(page.getByLabel("Pressure on the gauge's needle"));
    await expect(needle).toBeVisible();
    const box = (await needle.boundingBox())!;
    expect(box.height).toBeGreaterThanOrEqual(64);
    for (let i = 0; i < 12; i++) await page.keyboard.press('ArrowUp');
    await expect(page.getByTestId('live-pressure')).toHaveText('2.4');
    await expect(page.getByText('followed by hand')).toBeVisible();
    await expect(page.getByTestId('live-grams')).toHaveText(/^~\d+$/);
    await needle.fill('6');
    await expect.poll(() => live(page, 'pressure')).toBeGreaterThan(5);
    await page.waitForFunction(() => Number(document.querySelector('[data-testid=live-seconds]')?.textContent) > 12);
    await page.getByRole('button', { name: /^Stop/ }).click();
    await expect(page).toHaveURL(/\/taste\/\d+/, { timeout: 15_000 });
    await expect(page.getByText(/followed by hand/)).toBeVisible();
  });
});

test('nothing but a clock: one key each, and the trace says that the pressure is assumed', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a phone has no keyboard');
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await expect(page.getByText(/No scale is connected: \d+ g of water/)).toBeVisible();
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    await page.keyboard.press(' ');
    await expect(page.getByText('assumed from the plan')).toBeVisible();
    await page.keyboard.press('d');
    await expect(page.getByTestId('sentence')).not.toContainText('until first drops');
    await page.keyboard.press('b');
    await page.keyboard.press(' ');
    await expect(page).toHaveURL(/\/taste\/\d+/, { timeout: 15_000 });
    await expect(page.getByText(/assumed from the plan/)).toBeVisible();
  });
});

test('an instrument that goes away and comes back, a second tab, and a server that is killed lose nothing', async ({
  page,
}, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  const home = new Household();
  try {
    await home.open(4);
    const instruments = home.instruments(4, 5);
    await page.goto(`${home.url}/pull`);
    await expect(page.getByText('Stand-in scale')).toBeVisible();
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'pressure'), { timeout: 30_000 }).toBeGreaterThan(1.5);
    instruments.kill('SIGKILL');
    await expect(page.getByText(/Stand-in gauge went away. What it sent so far is kept/)).toBeVisible();
    await expect(page.getByText(/assumed from the plan|followed by hand/).or(page.getByTestId('live-seconds'))).toBeVisible();
    home.instruments(4, 6);
    await expect(page.getByText(/Stand-in gauge is connected/)).toBeVisible();
    // a second tab sees the same pull
    const second = await page.context().newPage();
    await second.goto(`${home.url}/pull`);
    await expect.poll(() => live(second, 'seconds')).toBeGreaterThan(2);
    const seconds = await live(page, 'seconds');
    await home.kill();
    await expect(page.getByText(/connection/i).first()).toBeVisible();
    await home.open(4);
    await page.goto(`${home.url}/pull`);
    await expect(page.getByText(/interrupted/).first()).toBeVisible();
    await page.getByRole('button', { name: /Keep/ }).first().click();
    await expect(page).toHaveURL(/\/taste\/\d+/);
    const id = /\/taste\/(\d+)/.exec(page.url())![1];
    const { curves } = await (await page.request.get(`${home.url}/api/shots/${id}`)).json();
    // at four times life two journal writes are two seconds of the pull
    expect(curves.pressureBar.length * curves.stepSeconds).toBeGreaterThan(seconds - 5);
    await second.close();
  } finally {
    await home.close();
  }
});

test('two brewers have a pull each, and two tabs on one end together', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  await clearPull(page);
  await clearPull(page);
  await onTheSheet(page, 'PortableLever');
  await page.goto('/pull');
  await page.getByRole('button', { name: /make ready/ }).click();
  await expect(page.getByTestId('sentence')).toBeVisible();
  const first = page.url();
  await onTheSheet(page, 'BoilerSpring');
  const other = await page.context().newPage();
  await other.goto('/pull?ready');
  const tabs = other.getByRole('navigation', { name: 'Pulls under way' });
  await expect(tabs.getByRole('link')).toHaveCount(2);
  await expect(tabs.getByRole('link', { name: /Trial BoilerSpring/ })).toHaveAttribute('aria-current', 'page');
  await other.getByRole('button', { name: 'Not now' }).click();
  await other.goto(first);
  await expect.poll(() => live(other, 'grams'), { timeout: 60_000 }).toBeGreaterThan(2);
  await page.getByRole('button', { name: /^Stop/ }).click();
  await expect(page).toHaveURL(/\/taste\/\d+/, { timeout: 15_000 });
  await expect(other).toHaveURL(page.url());
  await other.close();
});

test('the pull can be read from two metres, in light and dark, and by everyone', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a phone is held in the hand');
  await clearPull(page);
  await onTheSheet(page, 'PortableLever');
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme });
    await page.goto('/pull');
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'grams'), { timeout: 60_000 }).toBeGreaterThan(4);
    for (const name of ['grams', 'pressure', 'seconds', 'flow', 'force']) {
      const size = await page.getByTestId(`live-${name}`).evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
      expect(size).toBeGreaterThanOrEqual(96);
    }
    for (const button of await page.locator('main').getByRole('button').all()) {
      expect((await button.boundingBox())!.height).toBeGreaterThanOrEqual(64);
    }
    await page.getByRole('button', { name: 'Show the indicator card' }).click();
    const card = page.getByRole('img', { name: /Indicator card/ });
    // what was pressed before the card was opened is on it
    await expect
      .poll(() => card.locator('path').evaluateAll((all) => Math.max(...all.map((p) => p.getAttribute('d')?.length ?? 0))))
      .toBeGreaterThan(300);
    await page.getByRole('button', { name: 'Show the trace' }).click();
    await expectAccessible(page);
    await expectNoSidewaysScroll(page);
    await clearPull(page);
    await page.goto('about:blank');
  }
});
