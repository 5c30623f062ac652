import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { program } from './programs';

/** How many times as fast as life the pulls of most tests run. */
export const usualSpeed = 7;

export interface Machine {
  id: number;
  name: string;
  start: { yieldGrams: number } & Record<string, unknown>;
}

export const families = [
  'BoilerDirect',
  'BoilerSpring',
  'PortableLever',
  'HeatedGroup',
  'TwinArmBasket',
  'TwinArmChamber',
  'SteppedLever',
  'HandPump',
];

/** A household of its own: the real server with the sample in a fresh folder, and instruments if wanted. */
export class Household {
  private readonly folder = mkdtempSync(join(tmpdir(), 'ruddy-e2e-'));
  private readonly programs: ChildProcess[] = [];
  url = '';

  /** With the sample in it, or empty as on the first morning. */
  constructor(
    private readonly holds: 'sample' | 'nothing' = 'sample',
    private readonly options: readonly string[] = [],
  ) {
    if (holds === 'sample' && process.env.RUDDY_SAMPLE)
      cpSync(process.env.RUDDY_SAMPLE, this.folder, { recursive: true });
  }

  /** Starts the server on any free port; again on the same data after it was killed. */
  async open(speed: number) {
    const more = [...(this.holds === 'nothing' ? ['--empty'] : []), ...this.options];
    const server = this.start('Server', ['--port', '0', '--data', this.folder, '--speed', String(speed), ...more]);
    let said = '';
    this.url = await new Promise<string>((listening, failed) => {
      const hear = (bytes: Buffer) => {
        said += String(bytes);
        const address = /Listening on (http:\S+)/.exec(said)?.[1];
        if (address) listening(address);
      };
      server.stdout!.on('data', hear);
      server.stderr!.on('data', hear);
      server.once('exit', (code) => failed(new Error(`The server ended with ${code}: ${said}`)));
    });
    // code runs slowest the first time: what a test times is the page, not a program that has just started
    for (const first of ['prepare', 'pull', 'bench']) await (await fetch(`${this.url}/api/${first}`)).text();
  }

  /** The stand-in instruments, faster than life, so that a pull takes some seconds; no probe on the group, and a hand that presses on until it is told. */
  instruments(speed: number, seed = 11, letsGo: 'cue' | 'never' = 'never') {
    const on = `${this.url.replace('http', 'ws')}/instruments`;
    return this.start('Instruments', [
      '--server',
      on,
      '--speed',
      `${speed}`,
      '--clock-speed',
      `${speed}`,
      '--seed',
      `${seed}`,
      '--group-probe',
      'no',
      '--gauge-rate',
      '10',
      '--lets-go',
      letsGo,
    ]);
  }

  private start(name: string, args: string[]) {
    // a server that lives for a minute gains nothing from being compiled three times over
    const env = { ...process.env, DOTNET_TieredPGO: '0' };
    const child = spawn('dotnet', [program(name), ...args], { env, stdio: ['ignore', 'pipe', 'pipe'] });
    this.programs.push(child);
    return child;
  }

  /** Ends the server as a power cut does, with no time to tidy up. */
  async kill() {
    const server = this.programs.filter(
      (p) => p.exitCode === null && p.signalCode === null && p.spawnargs.some((a) => a.includes('Server.dll')),
    )[0]!;
    const gone = new Promise((ended) => server.once('exit', ended));
    server.kill('SIGKILL');
    await gone;
  }

  async close() {
    const ended = this.programs.map(
      (child) =>
        new Promise((gone) =>
          child.exitCode === null && child.signalCode === null ? child.on('exit', gone) : gone(null),
        ),
    );
    // what is in the folder goes with it: nobody has to say goodbye
    for (const child of [...this.programs].reverse()) child.kill('SIGKILL');
    await Promise.all(ended);
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** A household without instruments, for a test of its own. */
export async function bare(run: (home: Household) => Promise<void>, speed = 4) {
  const home = new Household();
  try {
    await home.open(speed);
    await run(home);
  } finally {
    await home.close();
  }
}

/** Each worker has a household with instruments, several times as fast as life. */
export const test = base.extend<object, { household: Household }>({
  household: [
    // eslint-disable-next-line no-empty-pattern
    async ({}, use) => {
      const household = new Household();
      await household.open(usualSpeed);
      household.instruments(usualSpeed);
      await use(household);
      await household.close();
    },
    { scope: 'worker', auto: true },
  ],
  baseURL: async ({ household }, use) => use(household.url),
});
export { expect };

const standards = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** No accessibility fault of WCAG 2.2 A and AA that a machine can find; of a page whose structure has been looked at, the colours alone. */
export async function expectAccessible(page: Page, only: 'all' | 'colours' = 'all') {
  // the whole page at once: on a phone the bar at the bottom lies over whatever happens to be under it
  await expect(page.getByText('Loading')).toHaveCount(0);
  const window = page.viewportSize()!;
  // in one piece: what it is without is a second page for frames from elsewhere, of which there are none
  const axe = () => {
    const builder = new AxeBuilder({ page }).setLegacyMode();
    return only === 'all' ? builder.withTags(standards) : builder.withRules('color-contrast');
  };
  const analyse = () => axe().analyze();
  let found: Awaited<ReturnType<typeof analyse>> | undefined;
  await expect(async () => {
    const height = await page.evaluate(() => document.documentElement.scrollHeight);
    await page.setViewportSize({ width: window.width, height: Math.max(window.height, height + 80) });
    found = await analyse();
    // what loaded meanwhile is in the window too
    const over = await page.evaluate(() => document.documentElement.scrollHeight - globalThis.innerHeight);
    expect(over).toBeLessThanOrEqual(0);
  }).toPass();
  await page.setViewportSize(window);
  expect(found!.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

/** Nothing sticks out at the side. */
export async function expectNoSidewaysScroll(page: Page) {
  // a chart follows its window a frame later
  await expect
    .poll(() => page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth))
    .toBeLessThanOrEqual(0);
}

/** The number that a live figure shows. */
export async function live(page: Page, name: string): Promise<number> {
  return Number((await page.getByTestId(`live-${name}`).textContent())?.replace(',', '.'));
}

/**
 * From now on notes all that the pull screen says, and the kind of each cue, however briefly: at several times life one may pass
 * between two looks.
 */
export async function noteSayings(page: Page) {
  await page.evaluate(() => {
    const said: string[] = [];
    Object.assign(window, { said });
    new MutationObserver(() => {
      const spoken = document.querySelectorAll<HTMLElement>('[data-testid=sentence], [data-testid=coach]');
      for (const shown of Array.from(spoken)) {
        const line = `${shown.dataset.kind ?? 'Coach'}: ${shown.textContent}`;
        if (shown.textContent && !said.includes(line)) said.push(line);
      }
    }).observe(document.body, { subtree: true, childList: true, characterData: true, attributeFilter: ['data-kind'] });
  });
}

/** Waits until the pull screen has said something like this since its sayings are noted. */
export async function expectSaid(page: Page, like: RegExp, timeout = 40_000) {
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { said: string[] }).said.join('\n')), { timeout })
    .toMatch(like);
}

/** Waits until the coach has said that it is time to stop, since its sayings are noted. */
export const expectStopSaid = (page: Page) => expectSaid(page, /^Stop: /m, 90_000);

/**
 * Pulls until the cup is as near to the yield as it should be, three times at most: a computer that stands still for a second
 * while the hand lets go makes the cup larger, whatever the coach said. One that is cued wrongly is off each time.
 */
export async function landsWithin(grams: number, pull: () => Promise<number>) {
  const off: number[] = [];
  while (off.length < 3 && !(Math.abs(off.at(-1) ?? Infinity) < grams)) off.push(await pull());
  expect(Math.abs(off.at(-1)!), `off by ${off.map((o) => o.toFixed(1)).join(', ')} g`).toBeLessThan(grams);
}

/** Stops the pull. On a computer that stood still meanwhile it may have run out, or be saved already, by itself. */
export async function stopPull(page: Page) {
  const over = page.getByText(/last drops are being weighed/).or(page.getByRole('heading', { name: /^Shot \d+/ }));
  await expect(async () => {
    if ((await over.count()) > 0) return;
    await page.getByRole('button', { name: /^Stop/ }).click({ timeout: 1000 });
  }).toPass({ timeout: 20_000 });
}

/** Saves a stopped pull without waiting for the last drops, and is there when its shot is shown. */
export async function saveNow(page: Page) {
  const shown = /\/taste\/\d+/;
  await expect(async () => {
    // it is saved by itself when the last drops have been weighed
    if (shown.test(page.url())) return;
    await page.getByRole('button', { name: 'Save it now' }).click({ timeout: 1000 });
  }).toPass({ timeout: 20_000 });
  await expect(page).toHaveURL(shown, { timeout: 15_000 });
}

/** Says how much of something was tasted. */
export async function tasted(page: Page, what: string, howMuch: string) {
  await page.getByRole('radiogroup', { name: what }).getByRole('radio', { name: howMuch, exact: true }).check();
}

/** No pull is left over from an earlier test. */
export async function clearPull(page: Page) {
  while ((await page.request.post('/api/pull/discard?forGood=true')).ok());
}

/** A sheet in the place of the one that is there; the version that it is kept as. */
export async function putSheet(page: Page, sheet: object, url = ''): Promise<number> {
  const { version } = await (await page.request.get(`${url}/api/prepare`)).json();
  const kept = await page.request.put(`${url}/api/prepare?version=${version}`, { data: sheet });
  expect(kept.ok(), await kept.text()).toBe(true);
  return (await kept.json()).version;
}

/** Opens who and what on Prepare, changes something there, and closes it again. */
export async function whoAndWhat(page: Page, act: (panel: Locator) => Promise<unknown>) {
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const panel = page.getByRole('dialog', { name: 'Who and what' });
  await act(panel);
  await panel.getByRole('button', { name: 'Done' }).click();
  await expect(panel).toHaveCount(0);
}

/** Takes a machine on Prepare. */
export async function takeMachine(page: Page, name: string) {
  await whoAndWhat(page, (panel) => panel.getByLabel('Machine', { exact: true }).selectOption({ label: name }));
  await expect(page.getByTestId('who')).toContainText(name);
}

/** Waits until the page has drawn some frames: long enough for it to have heard what the server says. */
export async function frames(page: Page, count: number) {
  await page.evaluate(
    (n) =>
      new Promise<void>((drawn) => {
        const next = (left: number) => (left === 0 ? drawn() : requestAnimationFrame(() => next(left - 1)));
        next(n);
      }),
    count,
  );
}

/** A machine with its family's numbers, but for what is said otherwise, on the sheet; made where there is none of that name yet. */
export async function onTheSheet(
  page: Page,
  family: string,
  name: string,
  otherwise: object = {},
  url = '',
): Promise<Machine> {
  const machines = async () => (await (await page.request.get(`${url}/api/bench`)).json()).machines as Machine[];
  if (!(await machines()).some((m) => m.name === name)) {
    const starts = (await (await page.request.get(`${url}/api/machines/starts`)).json()) as {
      start: { defaults: { family: string } };
    }[];
    const { start } = starts.find((s) => s.start.defaults.family === family)!;
    const made = await page.request.post(`${url}/api/bench/machines`, {
      data: { name, spec: { ...start.defaults, ...otherwise } },
    });
    expect(made.ok(), await made.text()).toBe(true);
  }
  const machine = (await machines()).find((m) => m.name === name)!;
  await putSheet(page, { ...machine.start, machineId: machine.id }, url);
  return machine;
}

/** A number field set by typing. */
export async function type(page: Page, label: RegExp, value: string) {
  await page.getByRole('textbox', { name: label }).fill(value);
}

/** Says what the clock of a file that is imported begins with, where it is asked. */
export async function sayClock(page: Page) {
  const clock = page.getByLabel('The clock starts at');
  if ((await clock.inputValue()) === '') await clock.selectOption({ label: 'the lever\u2019s first move' });
}
