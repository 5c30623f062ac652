import type { Page } from '@playwright/test';
import {
  bare,
  clearPull,
  expect,
  expectAccessible,
  expectNoSidewaysScroll,
  expectStopSaid,
  families,
  Household,
  landsWithin,
  live,
  noteSayings,
  onTheSheet,
  putSheet,
  saveNow,
  stopPull,
  test,
} from './bench';

interface Pulled {
  shot: { yieldGrams: number; measures: { cupGrams: number } };
  origins: { origin: string }[];
  curves: { stepSeconds: number; pressureBar: number[] };
}

/** The shot whose taste is asked for. */
async function shotTasted(page: Page): Promise<Pulled> {
  const { origin, pathname } = new URL(page.url());
  const answer = await page.request.get(`${origin}/api/shots/${/\d+$/.exec(pathname)![0]}`);
  return (await answer.json()) as Pulled;
}

test.describe('a whole pull', () => {
  // at four times life's speed a stutter of a second is worth six grams, at seven times ten
  const home = new Household();
  test.beforeAll(async () => {
    await home.open(4);
    home.instruments(4);
  });
  test.afterAll(() => home.close());

  for (const family of families) {
    test(`on a ${family} from the first check to the shot`, async ({ page }, info) => {
      test.skip(
        info.project.name === 'phone' && family !== 'PortableLever',
        'the same pull on the wide screen is enough',
      );
      const machine = await onTheSheet(page, family, `Trial ${family}`, {}, home.url);
      await landsWithin(9, async () => {
        await page.goto(`${home.url}/pull`);
        await expect(page.getByText(/The holder is fully seated and locked/)).toBeVisible();
        await expect(page.getByText(/The cup stands under it/)).toBeVisible();
        await page.getByRole('button', { name: /make ready/ }).click();
        await expect.poll(() => live(page, 'pressure'), { timeout: 30_000 }).toBeGreaterThan(0.5);
        // the cue itself: who lets go while it is still counted down to has some grams less. The key is pressed in the
        // page, at the frame that shows the cue
        await page.waitForFunction(
          () => {
            if (document.querySelector('[data-testid=sentence]')?.getAttribute('data-kind') !== 'Stop') return false;
            document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 's', bubbles: true }));
            return true;
          },
          null,
          { timeout: 75_000 },
        );
        // the last drops fall for three seconds of life; who does not wait for them saves at once
        await saveNow(page);
        const { shot, origins } = await shotTasted(page);
        expect(origins.map((o) => o.origin)).toContain('Measured');
        return shot.measures.cupGrams - machine.start.yieldGrams;
      });
    });
  }
});

test('who only looks on sees the hand let go at the cue, and the shot stored by itself', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  await bare(async (home) => {
    // at twice life's speed a stutter of a second is worth three grams, at seven times ten
    home.instruments(2, 11, 'cue');
    await landsWithin(2, async () => {
      await page.goto(`${home.url}/pull`);
      await expect(page.getByText('Stand-in scale')).toBeVisible();
      await page.getByRole('button', { name: /make ready/ }).click();
      await expect(page).toHaveURL(/\/taste\/\d+/, { timeout: 90_000 });
      const { shot } = await shotTasted(page);
      return shot.measures.cupGrams - shot.yieldGrams;
    });
  }, 2);
});

test('a gauge that only eyes can read is followed by keys and by the slider', async ({ page }, info) => {
  await bare(async (home) => {
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    const needle = page
      .getByLabel('Pressure on the gauge\u2019s needle')
      .or(page.getByLabel("Pressure on the gauge's needle"));
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
    const stop = page.getByRole('button', { name: /^Stop/ });
    if (info.project.name === 'desktop') {
      // the hand's force beside the needle, and the keys under it without scrolling
      await expect(page.getByText(/^Hand: \d+ of \d+ kgf$/)).toBeVisible();
      const at = (await stop.boundingBox())!;
      expect(at.y + at.height).toBeLessThanOrEqual(800);
    }
    await stop.click();
    await saveNow(page);
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
    await saveNow(page);
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
    await expect(page.getByText(/Stand-in gauge has disconnected. What it sent so far is kept/)).toBeVisible();
    // the clock goes on without any instrument
    const lost = await live(page, 'seconds');
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(lost + 1);
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
    await page.getByRole('button', { name: 'Save it as a shot' }).first().click();
    await expect(page).toHaveURL(/\/taste\/\d+/);
    const { curves } = await shotTasted(page);
    // at four times life two journal writes are two seconds of the pull
    expect(curves.pressureBar.length * curves.stepSeconds).toBeGreaterThan(seconds - 5);
    await second.close();
  } finally {
    await home.close();
  }
});

/** A gauge in a page of its own, twenty samples a second, with a clock that can be set. */
async function gauge(page: Page, url: string) {
  const bench = await page.context().newPage();
  await bench.goto(`${url}/api/household`);
  await bench.evaluate(
    (to) =>
      new Promise<void>((sending) => {
        const device = new WebSocket(to);
        const world = window as unknown as { clock: number; pause: number };
        world.clock = 1000;
        world.pause = 0;
        let last = performance.now();
        device.onopen = () => {
          device.send('{"hello":"ruddy-line/1","device":"Shelf gauge","channels":{"pressure":"bar"}}\n');
          setInterval(() => {
            world.clock += (performance.now() - last) / 1000;
            world.pause = Math.max(world.pause, (performance.now() - last) / 1000);
            last = performance.now();
            device.send(`{"t":${world.clock.toFixed(3)},"pressure":${(3 + Math.sin(world.clock)).toFixed(2)}}\n`);
          }, 50);
          sending();
        };
      }),
    `${url.replace('http', 'ws')}/instruments`,
  );
  return {
    longestPause: () => bench.evaluate(() => (window as unknown as { pause: number }).pause),
    setClock: (by: number) => bench.evaluate((s) => void ((window as unknown as { clock: number }).clock += s), by),
  };
}

test('a tablet that sleeps misses nothing, and a clock that is set back is told and bridged', async ({
  page,
}, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  const home = new Household();
  try {
    await home.open(1);
    const device = await gauge(page, home.url);
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'seconds'), { timeout: 15_000 }).toBeGreaterThan(2);
    const told = () =>
      page.getByTestId('trace-pressure').evaluate((p) => Number((p as unknown as SVGPathElement).dataset.points));
    const before = await told();

    // asleep: nothing runs in the page until it wakes
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Page.setWebLifecycleState', { state: 'frozen' });
    const serverSeconds = async () =>
      (await (await page.request.get(`${home.url}/api/pull`)).json()).frame.reading.seconds as number;
    const asleep = await serverSeconds();
    await expect.poll(serverSeconds).toBeGreaterThan(asleep + 4);
    await cdp.send('Page.setWebLifecycleState', { state: 'active' });
    await expect.poll(told).toBeGreaterThan(before + 70);

    await device.setClock(-600);
    await expect(
      page.getByText(/Shelf gauge: its clock was set back. A few of its readings are missing/),
    ).toBeVisible();
    await device.setClock(3600);
    const seconds = await live(page, 'seconds');
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(seconds + 1);
    expect(await live(page, 'seconds')).toBeLessThan(60);
    await page.getByRole('button', { name: /^Stop/ }).click();
    await saveNow(page);
    // the caution stands where the holder comes off
    await expect(page.getByText(/sprays hot grounds/)).toBeVisible();
    await expect(page.getByText(/its clock was set back/)).toBeVisible();
    const id = /\/taste\/(\d+)/.exec(page.url())![1];
    const csv = await (await page.request.get(`${home.url}/api/shots/${id}/trace.csv`)).text();
    const times = csv
      .trim()
      .split('\n')
      .slice(1)
      .map((line) => Number(line.split(',')[0]))
      .filter(Number.isFinite);
    expect(times.length).toBeGreaterThan(150);
    const gaps = times.slice(1).map((t, i) => t - times[i]!);
    // less than a second more than the device itself was silent, on a machine that is busy with other tests
    expect(Math.max(...gaps)).toBeLessThan(1 + (await device.longestPause()));
  } finally {
    await home.close();
  }
});

test('two brewers have a pull each, and two tabs on one end together', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  // slow enough that the first still runs when the second is made ready
  await bare(async (home) => {
    home.instruments(2);
    await onTheSheet(page, 'PortableLever', 'Trial PortableLever', {}, home.url);
    await page.goto(`${home.url}/pull`);
    await expect(page.getByText('Stand-in scale')).toBeVisible();
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect(page.getByTestId('sentence')).toBeVisible();
    const first = page.url();
    await onTheSheet(page, 'BoilerSpring', 'Trial BoilerSpring', {}, home.url);
    const other = await page.context().newPage();
    const { version } = await (await page.request.get(`${home.url}/api/prepare`)).json();
    await other.goto(`${home.url}/pull?ready=${version}`);
    const tabs = other.getByRole('navigation', { name: 'Pulls under way' });
    await expect(tabs.getByRole('link')).toHaveCount(2);
    await expect(tabs.getByRole('link', { name: /Trial BoilerSpring/ })).toHaveAttribute('aria-current', 'page');
    // with the tabs above and the needle's slider, what the hand needs is in the window
    for (const name of [/^Start the clock/, 'Cancel'])
      await expect(other.getByRole('button', { name })).toBeInViewport({ ratio: 1 });
    await other.getByRole('button', { name: 'Cancel' }).click();
    await other.goto(first);
    await expect.poll(() => live(other, 'grams'), { timeout: 60_000 }).toBeGreaterThan(2);
    await page.getByRole('button', { name: /^Stop/ }).click();
    await saveNow(page);
    await expect(other).toHaveURL(page.url());
    await other.close();
  }, 2);
});

test('an instrument is given to the pull that it shall tell of', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  // a device's own clock runs at life's speed
  await bare(async (home) => {
    await gauge(page, home.url);
    await page.goto(`${home.url}/pull`);
    await page.getByRole('button', { name: /make ready/ }).click();
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(1);
    const first = page.url();
    // the gauge stays with the first until it is given to the second, on another machine
    const { sheet } = await (await page.request.get(`${home.url}/api/prepare`)).json();
    const { machines } = await (await page.request.get(`${home.url}/api/bench`)).json();
    const other = machines.find((m: { id: number }) => m.id !== sheet.machineId);
    const version = await putSheet(page, { ...other.start, machineId: other.id }, home.url);
    await page.goto(`${home.url}/pull?ready=${version}`);
    await expect(page.getByRole('navigation', { name: 'Pulls under way' }).getByRole('link')).toHaveCount(2);
    await expect(page.getByTestId('sentence')).toContainText('Begin when you are ready');
    const use = page.getByRole('button', { name: 'Use it for this pull' });
    await use.click();
    await expect(use).toHaveCount(0);
    await expect.poll(() => live(page, 'seconds')).toBeGreaterThan(1);
    expect(await live(page, 'pressure')).toBeGreaterThan(1);
    await page.goto(first);
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible();
  }, 1);
});

test('the pull can be read from two metres, in light and dark, and by everyone', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'a phone is held in the hand');
  // slow enough that the pull still runs when all has been looked at
  await bare(async (home) => {
    home.instruments(2);
    await onTheSheet(page, 'PortableLever', 'Trial PortableLever', {}, home.url);
    for (const scheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme: scheme });
      await page.goto(`${home.url}/pull`);
      await expect(page.getByText('Stand-in scale')).toBeVisible();
      await page.getByRole('button', { name: /make ready/ }).click();
      await expect.poll(() => live(page, 'grams'), { timeout: 60_000 }).toBeGreaterThan(4);
      for (const name of ['grams', 'pressure', 'seconds', 'flow', 'force']) {
        const size = await page
          .getByTestId(`live-${name}`)
          .evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
        expect(size).toBeGreaterThanOrEqual(96);
      }
      const heights = await page
        .locator('main')
        .getByRole('button')
        .evaluateAll((all) => all.map((button) => button.getBoundingClientRect().height));
      expect(heights.length).toBeGreaterThan(2);
      expect(Math.min(...heights)).toBeGreaterThanOrEqual(64);
      await page.getByRole('button', { name: 'Show the indicator card' }).click();
      const card = page.getByRole('img', { name: /Indicator card/ });
      // what was pressed before the card was opened is on it
      await expect
        .poll(() =>
          card.locator('path').evaluateAll((all) => Math.max(...all.map((p) => p.getAttribute('d')?.length ?? 0))),
        )
        .toBeGreaterThan(300);
      await page.getByRole('button', { name: 'Show the trace' }).click();
      await expectAccessible(page);
      await expectNoSidewaysScroll(page);
      await page.request.post(`${home.url}/api/pull/discard?forGood=true`);
      await page.goto('about:blank');
    }
  }, 2);
});

/** Notes down every pitch that the page plays, Hz: where a tone begins, and where it slides to. */
async function listen(page: Page) {
  await page.addInitScript(() => {
    const played: number[] = [];
    (window as unknown as { played: number[] }).played = played;
    for (const name of ['setValueAtTime', 'exponentialRampToValueAtTime'] as const) {
      const real = AudioParam.prototype[name];
      AudioParam.prototype[name] = function (this: AudioParam, value: number, at: number) {
        // what is below is loudness
        if (value > 20) played.push(value);
        return real.call(this, value, at);
      };
    }
  });
  const pitches = () => page.evaluate(() => (window as unknown as { played: number[] }).played.splice(0));
  return { pitches };
}

test('the pull can be heard, each thing by a tone of its own, and not where sound is off', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'once is enough');
  await clearPull(page);
  await onTheSheet(page, 'PortableLever', 'Trial PortableLever');
  const { pitches } = await listen(page);
  await page.goto('/pull');
  await page.getByRole('button', { name: 'Full', exact: true }).click();
  await pitches();
  await noteSayings(page);
  await page.getByRole('button', { name: /make ready/ }).click();
  await expectStopSaid(page);
  const played = await pitches();
  const count = (hertz: number) => played.filter((f) => f === hertz).length;
  expect(count(440)).toBe(1); // the lever moves
  expect(count(880)).toBe(2); // first drops
  expect(count(392)).toBeGreaterThan(0); // easing slides down
  expect(count(784)).toBe(3); // stop
  await stopPull(page);
  await saveNow(page);

  await page.goto('/pull');
  await page.getByRole('button', { name: 'Sound off' }).click();
  await page.getByRole('button', { name: /make ready/ }).click();
  await expect.poll(() => live(page, 'grams'), { timeout: 60_000 }).toBeGreaterThan(2);
  expect(await pitches()).toEqual([]);
  await clearPull(page);
});
