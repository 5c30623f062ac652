import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, frames, Household, live, putSheet, test } from './bench';

/** What the sentence asks for, bar; null where it names none. */
const asked = (sentence: string) => {
  const bar = /(?:Hold|to|stay at) ([\d.]+) bar/i.exec(sentence);
  return bar ? Number(bar[1]) : null;
};

/** What the screen says at this moment, without waiting for it: a lesson may end between two looks. */
const seen = (page: Page) =>
  page.evaluate(() => {
    const text = (id: string) => document.querySelector(`[data-testid=${id}]`)?.textContent ?? '';
    return {
      sentence: text('sentence'),
      bar: Number.parseFloat(text('live-pressure')),
      kind: document.querySelector('[data-testid=sentence]')?.getAttribute('data-kind') ?? '',
      over: document.querySelector('[data-testid=better]') !== null,
    };
  });

/** Plays with the mouse as someone does who looks at the tape: too little, a little lower; too much, a little higher. Or as one who does not look. */
async function playByMouse(page: Page, careful: boolean) {
  const pad = page.getByRole('slider', { name: 'Virtual lever' });
  await expect(pad).toBeVisible();
  await frames(page, 60); // the scale settles under the cup; nothing can be done before
  const box = (await pad.boundingBox())!;
  let at = 0.2;
  await page.mouse.move(box.x + 60, box.y + box.height * at);
  await page.mouse.down();
  const better = page.getByTestId('better');
  for (let i = 0; i < 900; i++) {
    const { sentence, bar, over } = await seen(page);
    if (over) break;
    const target = asked(sentence) ?? 3;
    if (Number.isFinite(bar) && careful) at += (target - bar) * 0.012; // a clumsy hand stays where it is
    at = Math.min(0.95, Math.max(0.08, at));
    await page.mouse.move(box.x + 60, box.y + box.height * at);
    await frames(page, 2);
  }
  await page.mouse.up();
  await expect(better).toBeVisible();
}

const points = async (page: Page) =>
  Number(
    /(\d+)/.exec(
      (await page
        .getByText(/, of 100$/)
        .locator('..')
        .textContent())!.split('of 100')[1]!,
    )![1],
  );

test('a lesson is played, and played better', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same lesson on the wide screen');
  test.setTimeout(300_000); // lessons take the time they take
  const home = new Household();
  try {
    await home.open(2);
    const shots = async () => (await (await page.request.get(`${home.url}/api/shots?size=1`)).json()).total as number;
    const before = await shots();
    await page.goto(`${home.url}/practice`);
    await expect(page.getByText('next for you')).toBeVisible();
    await expectAccessible(page);
    await page.getByRole('link', { name: 'Play Hold 3 bar' }).click();
    await expect(page.getByText(/Pre-infusion at 2 to 3 bar wets the puck evenly/)).toBeVisible();
    await page.getByRole('button', { name: /^Begin/ }).click();
    await playByMouse(page, false);
    const first = await points(page);
    await expectAccessible(page);
    await page.getByRole('button', { name: 'Play it again' }).click();
    await playByMouse(page, true);
    const second = await points(page);
    expect(second).toBeGreaterThan(first);
    expect(second).toBeGreaterThan(60);
    await expect(page.getByText('Last time')).toBeVisible();
    await page.getByRole('link', { name: 'All lessons' }).first().click();
    await expect(
      page.getByRole('img', { name: new RegExp(`Points over time: ${first}, ${second} of 100`) }),
    ).toBeVisible();

    // another by keys alone, with a coach who says when to stop
    await page.getByRole('link', { name: 'Play Stop on the gram' }).click();
    await page.getByRole('button', { name: /^Begin/ }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('slider', { name: 'Virtual lever' })).toBeVisible();
    await frames(page, 60);
    for (let i = 0; i < 1200; i++) {
      const { sentence, bar, kind, over } = await seen(page);
      if (kind === 'Stop' || over) break;
      const target = asked(sentence) ?? 7.5;
      const key = bar < target - 0.2 ? 'ArrowDown' : bar > target + 0.2 ? 'ArrowUp' : null;
      if (key) {
        await page.keyboard.down(key);
        await frames(page, 4);
        await page.keyboard.up(key);
      } else await frames(page, 3);
    }
    await page.keyboard.press('s');
    await expect(page.getByTestId('better')).toBeVisible();
    await expect(page.getByText(/g in the cup, [+-][\d.]+ g off/)).toBeVisible();
    expect(await points(page)).toBeGreaterThan(50);
    // not one of them is among the shots
    expect(await shots()).toBe(before);
  } finally {
    await home.close();
  }
});

test('a pump is practised by its rhythm, on any screen', async ({ page }, info) => {
  const home = new Household();
  try {
    await home.open(1);
    await pump(page, home, info.project.name === 'phone');
  } finally {
    await home.close();
  }
});

/** A finger that goes up and down on the pad; the highest pressure that the screen shows meanwhile. */
async function pumpByThumb(page: Page, box: { x: number; y: number; height: number }) {
  const cdp = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', share?: number) =>
    cdp.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: share === undefined ? [] : [{ x: box.x + 60, y: box.y + box.height * share }],
    });
  const scrolled = () => page.evaluate(() => window.scrollY);
  const before = await scrolled();
  let most = 0;
  await touch('touchStart', 0.05);
  for (let i = 0; i < 16; i++) {
    for (const share of [0.3, 0.6, 0.95]) await touch('touchMove', share);
    await frames(page, 15);
    most = Math.max(most, await live(page, 'pressure'));
    for (const share of [0.6, 0.3, 0.05]) await touch('touchMove', share);
    await frames(page, 15);
  }
  await touch('touchEnd');
  // the page stays where it is under the finger
  expect(await scrolled()).toBe(before);
  return most;
}

async function pump(page: Page, home: Household, phone: boolean) {
  await page.goto(`${home.url}/practice`);
  await expectNoSidewaysScroll(page);
  await page.getByRole('link', { name: 'Play Pump and rest' }).click();
  await page.getByRole('button', { name: /^Begin/ }).click();
  const pad = page.getByRole('slider', { name: 'Virtual lever' });
  await expect(pad).toBeVisible();
  await expectNoSidewaysScroll(page);
  const box = (await pad.boundingBox())!;
  if (phone) {
    // the pad is under the thumb without scrolling
    expect(box.y + box.height).toBeLessThanOrEqual(844);
    expect(box.height).toBeGreaterThanOrEqual(180);
    const most = await pumpByThumb(page, box);
    expect(most).toBeGreaterThan(0.2);
    await page.getByRole('button', { name: 'Give up' }).click();
    await expect(page.getByRole('button', { name: /^Begin/ })).toBeVisible();
    return;
  }
  await page.mouse.move(box.x + 60, box.y + 10);
  await page.mouse.down();
  let most = 0;
  for (let i = 0; i < 16; i++) {
    await page.mouse.move(box.x + 60, box.y + box.height - 8, { steps: 6 });
    await frames(page, 18);
    most = Math.max(most, await live(page, 'pressure'));
    await page.mouse.move(box.x + 60, box.y + 8, { steps: 6 });
    await frames(page, 18);
  }
  await page.mouse.up();
  expect(most).toBeGreaterThan(0.2);
  await page.getByRole('button', { name: /Let go/ }).click();
  await expect(page.getByTestId('better')).toBeVisible({ timeout: 15_000 });
  await expect(page.getByText(/strokes/).first()).toBeVisible();
  await page.goto(`${home.url}/practice/juggling`);
  await expect(page.getByText('There is no such lesson.')).toBeVisible();
}

test('with a session\u2019s ribbon above it a lesson fits the window', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'on a phone the page is scrolled');
  const home = new Household();
  try {
    await home.open(4);
    const { sheet } = await (await page.request.get(`${home.url}/api/prepare`)).json();
    await putSheet(page, { ...sheet, machineId: 2, doseGrams: 14, yieldGrams: 28, planKey: 'flat-firm' }, home.url);
    const { wants, wantsVersion } = await (await page.request.get(`${home.url}/api/session`)).json();
    await page.request.put(`${home.url}/api/session?version=${wantsVersion}`, { data: { wants, readyAt: null } });
    for (const key of ['fill', 'on'])
      await page.request.post(`${home.url}/api/session/done`, { data: { key, secondsAgo: 600 } });
    await page.goto(`${home.url}/practice/hold-3`);
    await expect(page.getByText(/^Next:/)).toBeVisible();
    await page.getByRole('button', { name: /^Begin/ }).click();
    for (const name of [/^Let go, it is done/, /First drops/, 'Give up'])
      await expect(page.getByRole('button', { name })).toBeInViewport({ ratio: 1 });
  } finally {
    await home.close();
  }
});

test('on a tablet a lesson leaves its trace the width, with the figures in a row over it', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a tablet is no phone');
  for (const window of [
    { width: 768, height: 1024 },
    { width: 900, height: 620 },
  ]) {
    await page.setViewportSize(window);
    await page.goto('/practice/hold-3');
    await page.getByRole('button', { name: 'Begin' }).click();
    const trace = page.getByRole('img', { name: 'Pressure, cup and flow against seconds, with the plan' });
    await expect.poll(async () => (await trace.boundingBox())?.width).toBeGreaterThan(240);
    const tops = await Promise.all(
      ['live-grams', 'live-pressure', 'live-seconds', 'live-flow'].map(
        async (id) => (await page.getByTestId(id).boundingBox())!.y,
      ),
    );
    expect(Math.max(...tops) - Math.min(...tops)).toBeLessThan(2);
    await expect(page.getByTestId('live-force')).toHaveCount(0);
    await expectNoSidewaysScroll(page);
    await expectAccessible(page);
  }
});
