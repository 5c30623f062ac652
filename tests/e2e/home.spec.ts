import { createServer, type AddressInfo } from 'node:net';
import jsQR from 'jsqr';
import { PNG } from 'pngjs';
import { expect, expectAccessible, expectNoSidewaysScroll, Household, test } from './bench';

const desktop = (name: string) => test.skip(name === 'phone', 'the same on a wide screen');

/** A port that nobody has now. */
const freePort = () =>
  new Promise<number>((found) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => found(port));
    });
  });

test('the tablet beside the lever scans a code, signs in once, and is out when it is sent out', async ({
  page,
  browser,
}, info) => {
  desktop(info.project.name);
  test.slow();
  const port = await freePort();
  const home = new Household('sample', ['--home-port', String(port)]);
  await home.open(1);
  const tablet = await browser.newContext({ viewport: { width: 768, height: 1024 } });
  try {
    await page.goto(`${home.url}/settings/network`);
    await expect(page.getByRole('heading', { name: 'The home network is off' })).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Suggest one' }).click();
    const passphrase = await page.getByRole('textbox', { name: 'Passphrase' }).inputValue();
    expect(passphrase.length).toBeGreaterThan(11);
    await page.getByRole('button', { name: 'Turn on' }).click();
    await expect(page.getByRole('heading', { name: 'The home network is on' })).toBeVisible();
    await expectAccessible(page);
    // a reader that knows nothing of us reads the code
    const code = page.getByRole('img', { name: /^Code that leads to/ });
    const picture = PNG.sync.read(await code.screenshot());
    const read = jsQR(new Uint8ClampedArray(picture.data), picture.width, picture.height);
    expect(read?.data).toMatch(new RegExp(`^http://[0-9.]+:${port}$`));
    await expect(page.getByText(read!.data, { exact: true })).toBeVisible();

    const there = await tablet.newPage();
    await there.goto(`http://127.0.0.1:${port}/prepare`);
    await expect(there.getByRole('heading', { name: 'Sign in', level: 1 })).toBeVisible();
    await expectAccessible(there);
    await expectNoSidewaysScroll(there);
    const field = there.getByRole('textbox', { name: 'Passphrase' });
    await field.fill('something else');
    await there.getByRole('button', { name: 'Sign in' }).click();
    await expect(there.getByRole('alert')).toHaveText('That is not the passphrase.');
    await field.fill(passphrase);
    await there.getByRole('textbox', { name: 'Name of this device' }).fill('Bar tablet');
    await there.getByRole('button', { name: 'Sign in' }).click();
    await expect(there.getByRole('heading', { name: 'Prepare', level: 1 })).toBeVisible();
    await there.getByRole('textbox', { name: /^Yield/ }).fill('35');
    await expect(there.locator('[aria-live=polite]', { hasText: /^Ratio 1 to/ })).toBeVisible();
    await there.goto(`http://127.0.0.1:${port}/settings/network`);
    await expect(there.getByText('It is signed in as Bar tablet.')).toBeVisible();

    await page.reload();
    await page.getByRole('button', { name: 'Sign Bar tablet out' }).click();
    await expect(page.getByText('No device has signed in.')).toBeVisible();
    await there.goto(`http://127.0.0.1:${port}/ledger`);
    await expect(there.getByRole('heading', { name: 'Sign in', level: 1 })).toBeVisible();
  } finally {
    await tablet.close();
    await home.close();
  }
});

test('a backup is taken, and a restore brings back what was deleted since', async ({ page }, info) => {
  desktop(info.project.name);
  const home = new Household();
  await home.open(1);
  try {
    await page.goto(`${home.url}/settings/storage`);
    await page.getByRole('button', { name: 'Back up now' }).click();
    await expect(page.getByRole('cell', { name: /By hand/ })).toBeVisible();
    await expectAccessible(page);
    await page.request.delete(`${home.url}/api/shots/7`);
    await page.reload();
    await page.getByRole('button', { name: 'Empty the bin' }).click();
    await page.getByRole('button', { name: 'Delete for good' }).click();
    await expect(page.getByText('The bin is empty.')).toBeVisible();
    expect((await page.request.get(`${home.url}/api/shots/7`)).status()).toBe(404);
    await page.getByRole('button', { name: 'Restore' }).click();
    const dialog = page.getByRole('dialog');
    await expect(dialog.getByText(/1 shot will come back/)).toBeVisible();
    await expectAccessible(page);
    await dialog.getByRole('button', { name: 'Restore' }).click();
    await expect(page.getByRole('cell', { name: /Before a restore/ })).toBeVisible();
    expect((await page.request.get(`${home.url}/api/shots/7`)).status()).toBe(200);
  } finally {
    await home.close();
  }
});

test('what is due is marked as done, and the strip says one less', async ({ page }) => {
  await page.goto('/care');
  await expect(page.getByRole('heading', { name: 'Care', level: 1 })).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  const due = (await (await page.request.get('/api/care/due')).json()) as { name: string }[];
  expect(due.length).toBeGreaterThan(2);
  const first = page.getByRole('button', { name: /due now|overdue/ }).first();
  await first.click();
  await page.getByRole('button', { name: 'Mark as done' }).click();
  await expect(page.getByText(/: done\.$/)).toBeVisible();
  expect(((await (await page.request.get('/api/care/due')).json()) as unknown[]).length).toBe(due.length - 1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect
    .poll(async () => ((await (await page.request.get('/api/care/due')).json()) as unknown[]).length)
    .toBe(due.length);
});

test('the page opens while the server is away, and says so', async ({ browser }, info) => {
  desktop(info.project.name);
  const home = new Household();
  await home.open(1);
  const context = await browser.newContext({ serviceWorkers: 'allow' });
  try {
    const page = await context.newPage();
    await page.goto(`${home.url}/ledger`);
    await expect(page.getByRole('heading', { name: 'Ledger', level: 1 })).toBeVisible();
    await page.evaluate(() => navigator.serviceWorker.ready);
    // the second visit goes through it, and it keeps what that needs
    await page.reload();
    await expect(page.getByRole('heading', { name: 'Ledger', level: 1 })).toBeVisible();
    await home.kill();
    await page.reload();
    await expect(page.getByText(/server does not answer/).first()).toBeVisible();
    const kept = await page.evaluate(async () => {
      const cache = await caches.open((await caches.keys())[0]!);
      return (await cache.keys()).map((request) => new URL(request.url).pathname);
    });
    expect(kept.filter((path) => path.startsWith('/api'))).toEqual([]);
  } finally {
    await context.close();
    await home.close();
  }
});

test('a pull goes on while the server is out of reach, and is whole when it is back', async ({ browser }, info) => {
  desktop(info.project.name);
  const home = new Household();
  await home.open(1);
  const context = await browser.newContext();
  try {
    const page = await context.newPage();
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    const begin = page.getByRole('button', { name: /^Start the clock/ });
    await expect(begin).toBeVisible();
    await context.setOffline(true);
    await begin.click();
    await expect(page.getByText(/The server is out of reach/)).toBeVisible();
    const clock = async () => parseInt(await page.getByText(/^\d+ s$/).innerText());
    await expect.poll(clock).toBeGreaterThan(1);
    await page.getByRole('button', { name: /First drops/ }).click();
    const drops = await clock();
    await expect.poll(clock).toBeGreaterThan(Math.max(4, drops + 2));
    await page.getByRole('button', { name: /^Stop/ }).click();
    await expect(page.getByText(/last drops are being weighed/)).toBeVisible();
    await context.setOffline(false);
    await expect(page).toHaveURL(/taste\/\d+/, { timeout: 20_000 });
    const id = /taste\/(\d+)/.exec(page.url())![1];
    const { shot } = await (await page.request.get(`${home.url}/api/shots/${id}`)).json();
    expect(shot.measures.secondsFromLever).toBeGreaterThan(4.5);
    expect(shot.measures.secondsToDrops).toBeGreaterThan(1.5);
    expect(shot.measures.secondsToDrops).toBeLessThan(shot.measures.secondsFromLever - 1.5);
  } finally {
    await context.close();
    await home.close();
  }
});
