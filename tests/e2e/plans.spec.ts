import type { Page } from '@playwright/test';
import { expect, expectAccessible, expectNoSidewaysScroll, takeMachine, test, type, whoAndWhat } from './bench';

async function packLever(page: Page) {
  await page.goto('/prepare');
  await takeMachine(page, 'Pack lever');
}

const point = (page: Page, phase: number) => page.getByRole('slider', { name: new RegExp(`^Phase ${phase},`) });

async function open(page: Page, key: string) {
  await page.goto(`/plans/${key}`);
  await expect(page.getByText(/As it would run on Pack lever/)).toBeVisible();
  await expect(point(page, 1)).toBeVisible();
}

/** Where a point stands on the screen. */
async function middle(page: Page, phase: number) {
  const box = (await point(page, phase).boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
}

test('a plan is drawn by hand, kept, used, thrown away and taken back', async ({ page }, info) => {
  const touch = info.project.name === 'phone';
  await packLever(page);
  await page.getByRole('link', { name: 'All plans' }).click();
  await expect(page.getByText('Hold the flow', { exact: true })).toBeVisible();
  await expect(
    page.getByText('Those who go by the gauge find that it hides a channel.', { exact: false }),
  ).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Open Early peak, long ease', exact: true }).click();
  await expect(point(page, 3)).toHaveAttribute('aria-valuetext', /^8\.0 bar, ends at \d/);
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);

  // by mouse, or by a finger on the phone: lower and later
  const from = await middle(page, 3);
  const to = { x: from.x + 20, y: from.y + 30 };
  if (touch) {
    const cdp = await page.context().newCDPSession(page);
    const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', at?: typeof from) =>
      cdp.send('Input.dispatchTouchEvent', { type, touchPoints: at ? [at] : [] });
    await send('touchStart', from);
    for (let i = 1; i <= 5; i++) await send('touchMove', { x: from.x + i * 4, y: from.y + i * 6 });
    await send('touchEnd');
  } else {
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 5 });
    await page.mouse.up();
  }
  await expect(point(page, 3)).not.toHaveAttribute('aria-valuetext', /^8\.0 bar/);
  const dragged = Number(await point(page, 3).getAttribute('aria-valuenow'));
  expect(dragged).toBeLessThan(8);
  expect(dragged).toBeGreaterThan(5);
  await expect(page.getByLabel('What the screen says')).toHaveValue(`Hold ${dragged} bar`);

  // by keys: exactly one tenth of a bar up, and its end a gram later
  const ends = async () =>
    Number(/ends at ([\d.]+) g/.exec((await point(page, 3).getAttribute('aria-valuetext'))!)![1]);
  const before = await ends();
  await point(page, 3).focus();
  await page.keyboard.press('ArrowUp');
  await expect(point(page, 3)).toHaveAttribute('aria-valuenow', String(Number((dragged + 0.1).toFixed(1))));
  await page.keyboard.press('ArrowRight');
  await expect.poll(ends).toBeCloseTo(before + 1, 0);

  // what comes of it follows, and another plan lies beside it
  await page.getByLabel('Compare with').selectOption({ label: 'Long and soft' });
  await expect(page.getByText(/Dashes and dots: Long and soft/)).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill(`Drawn on ${info.project.name}`);
  await page.getByRole('button', { name: 'Save as my own' }).click();
  await expect(page).toHaveURL(/\/plans\/own-\d+$/);
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByRole('radio', { name: new RegExp(`Drawn on ${info.project.name}`) })).toBeChecked();
  await page.getByRole('link', { name: 'See it run, change it' }).click();
  await expect(page).toHaveURL(/\/plans\/own-\d+$/);
  const url = page.url();
  await page.getByRole('button', { name: 'Delete the plan' }).click();
  await expect(page.getByText('This plan was deleted.')).toBeVisible();
  await page.getByRole('button', { name: 'Restore' }).click();
  await expect(page).toHaveURL(url);
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue(`Drawn on ${info.project.name}`);
  await page.getByRole('button', { name: 'Delete the plan' }).click();
  await expect(page.getByText('This plan was deleted.')).toBeVisible();
});

test('a plan that the machine cannot give, or whose points cross, says so and keeps what was typed', async ({
  page,
}, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await packLever(page);
  await open(page, 'early-peak');
  await point(page, 2).focus();
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowUp');
  await expect(page.getByText(/asks for 11\.0 bar; 19 kgf at the handle give 9\.1 bar/)).toBeVisible();
  // phase 4 ends before phase 3 does
  await page.getByRole('button', { name: /^Ease to 5\.0 bar/ }).click();
  await type(page, /Share of the yield/, '10');
  await expect(page.getByText(/Phase 4, ease, ends at 0\.1 of the yield, so its points cross/)).toBeVisible();
  await expect(page.getByText(/What you typed is kept/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: /Share of the yield/ })).toHaveValue('10');
  await expect(page.getByRole('button', { name: 'Save as my own' })).toBeDisabled();
  await type(page, /Share of the yield/, '60');
  await expect(page.getByText(/What you typed is kept/)).toHaveCount(0);
  // a phase more, of another kind
  await page.getByRole('button', { name: 'Add a phase' }).click();
  await page.getByLabel('What the hand does').selectOption({ label: 'hold the flow' });
  await expect(page.getByLabel('What the screen says')).toHaveValue('Ease so that the flow stays at 1.5 g/s');
  await expect(page.getByRole('button', { name: 'Save as my own' })).toBeEnabled();
});

test('a plan goes out as a file and comes in again', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await packLever(page);
  await open(page, 'long-soft');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a file' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('long-and-soft.plan.json');
  await page.goto('/plans');
  await page
    .getByLabel('File with a pull plan')
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('no plan') });
  await expect(page.getByText(/broken\.json cannot be read as a pull plan/)).toBeVisible();
  await page.getByLabel('File with a pull plan').setInputFiles(file);
  await expect(page).toHaveURL(/\/plans\/own-\d+$/);
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Long and soft');
  await page.getByRole('button', { name: 'Delete the plan' }).click();
  await expect(page.getByText('This plan was deleted.')).toBeVisible();
});

test('from the bag to the locked-in portafilter', async ({ page }) => {
  await packLever(page);
  await whoAndWhat(page, async (panel) => {
    await panel.getByLabel('Beans').selectOption({ index: 2 });
    await panel.getByLabel('Grinder').selectOption({ label: 'Hand mill' });
  });
  await type(page, /^Dose/, '15');
  await type(page, /^Grind/, '20');

  // ratios of the roast, and the one that the chamber cannot give
  const ratios = page.getByRole('group', { name: 'Ratios for this roast' });
  await ratios.getByRole('button', { name: /^usual/ }).click();
  await expect(ratios.getByRole('button', { name: /^usual/ })).toHaveAttribute('aria-pressed', 'true');

  // basket, headspace, imprint
  await whoAndWhat(page, async (panel) => {
    await panel.getByLabel('Basket').selectOption({ label: 'Straight 51' });
    await panel.getByLabel('On the puck').selectOption({ label: 'metal screen' });
    await expect(panel.getByText(/mm under the rim/)).toBeVisible();
    await panel.getByLabel('Holder').selectOption({ label: 'bottomless' });
    await panel.getByLabel('stirred').check();
    // a tamp that no arm makes is named, and stays as typed
    const tamp = panel.getByRole('textbox', { name: /^Tamp/ });
    await tamp.fill('95');
    await expect(panel.getByText(/Tamp .*between 0 and 40 kgf/)).toBeVisible();
    await expect(tamp).toHaveValue('95');
    await tamp.fill('9');
  });
  await type(page, /^Dose/, '21');
  await expect(page.getByText(/the handle will not close/)).toBeVisible();
  await type(page, /^Dose/, '15');
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);

  // same as a shot, but
  await page.getByRole('button', { name: /^Repeat a shot with one change/ }).click();
  await page.getByLabel('Same as shot').fill('1');
  await page.getByRole('button', { name: 'Start from it' }).click();
  await expect(page.getByText('The same as shot 1, nothing changed yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Dose more' }).click();
  await page.getByRole('button', { name: 'Dose more' }).click();
  await expect(page.getByText(/The same as shot 1 but for/)).toContainText('dose');
  await whoAndWhat(page, (panel) => panel.getByLabel('On the puck').selectOption({ label: 'paper disc' }));
  await expect(page.getByText(/things change at once/)).toBeVisible();
  await page.getByRole('button', { name: 'Stop comparing' }).click();
  await expect(page.getByText(/The same as shot 1/)).toHaveCount(0);
});

test('fix anything, the rest is solved', async ({ page }) => {
  await packLever(page);
  await whoAndWhat(page, async (panel) => {
    await panel.getByLabel('Grinder').selectOption({ label: 'Hand mill' });
    await panel.getByLabel('Beans').selectOption({ index: 1 });
    await panel.getByLabel('Basket').selectOption({ index: 0 });
  });
  await page.getByRole('radio', { name: 'Early peak, long ease', exact: true }).check();
  await type(page, /^Dose/, '15');
  await type(page, /^Yield/, '32');
  const grindStays = page.getByLabel('grind', { exact: true });
  if (!(await grindStays.isVisible())) await page.getByRole('button', { name: 'What else would land it' }).click();
  await grindStays.uncheck();
  // four clicks finer than what lands
  await expect(page.getByRole('button', { name: /^Advised setting/ })).toBeVisible();
  const view = (await (await page.request.get('/api/prepare/prediction')).json()) as {
    grind: { suggestion: { setting: number } };
  };
  await type(page, /^Grind/, String(view.grind.suggestion.setting - 4));
  const changes = page.getByRole('list', { name: 'Changes that land it' });
  await expect(changes.getByText(/^Grind at/)).toBeVisible();
  await page.getByLabel('grind', { exact: true }).check();
  await expect(changes.getByText(/^Grind at/)).toHaveCount(0);
  await expect(changes.getByRole('listitem').first()).toBeVisible();
  const first = changes.getByRole('button', { name: /^Use this/ }).first();
  await first.click();
  await expect(page.getByText('It lands as it stands; nothing has to change.')).toBeVisible();
  await page.getByLabel('grind', { exact: true }).uncheck();
  await page.getByLabel('as indicator card').check();
  await expect(page.getByRole('img', { name: /Indicator card of the predicted shot/ })).toBeVisible();
});

test('one small scale weighs everything in turn', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await packLever(page);
  // a home-made scale that says what lies on it
  await page.evaluate(() => {
    const socket = new WebSocket(`ws://${location.host}/instruments`);
    const scale = { grams: 0, at: 0, on: true };
    Object.assign(globalThis, { scale });
    socket.onopen = () => {
      socket.send('{"hello":"ruddy-line/1","device":"Kitchen scale","channels":{"weight":"g"}}\n');
      setInterval(() => {
        if (scale.on) socket.send(`{"t":${(scale.at += 0.1).toFixed(1)},"weight":${scale.grams}}\n`);
      }, 100);
    };
  });
  const turn = (how: { grams?: number; on?: boolean }) =>
    page.evaluate((h) => Object.assign((globalThis as never as { scale: object }).scale, h), how);
  const put = (grams: number) => turn({ grams });
  await page.getByRole('button', { name: 'Weigh it all' }).click();
  await page.getByLabel('Scale', { exact: true }).selectOption({ label: 'Kitchen scale' });
  const reads = (text: string) => expect(page.getByText(text, { exact: true }).first()).toBeVisible();
  await put(80);
  await reads('80.0');
  await page.getByRole('button', { name: 'Zero' }).click();
  await put(96.4);
  await reads('16.4');
  // one that switches itself off says so, and what was begun goes on when it is back
  await turn({ on: false });
  await expect(page.getByText('No weight comes from the scale')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use this weight' })).toBeDisabled();
  await turn({ on: true });
  await reads('16.4');
  await page.getByRole('button', { name: 'Use this weight' }).click();
  await page.getByRole('button', { name: 'Zero' }).click();
  await put(3300);
  await reads('3.2');
  await put(96);
  await page.getByRole('button', { name: 'Use this tamp' }).click();
  await expect(page.getByText('3 of 4: Water')).toBeVisible();
  await page.getByRole('button', { name: 'Zero' }).click();
  await expect(page.getByText(/g to go/)).toBeVisible();
  await page.getByRole('button', { name: 'Poured' }).click();
  await page.getByRole('button', { name: 'Skip', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Weigh it all' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: /^Dose/ })).toHaveValue('16.4');
  await type(page, /^Dose/, '15');
  await whoAndWhat(page, async (panel) => {
    const tamp = panel.getByRole('textbox', { name: /^Tamp/ });
    await expect(tamp).toHaveValue('3.2');
    await tamp.fill('9');
  });
});
