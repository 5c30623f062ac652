import { calmest, isCalm, tell, watched } from './calm.mjs';

const rounds = 7;
const mostRounds = 14;

const usable = 'usable at ';

/**
 * Runs in the page: says when its button is drawn and the page has time to hear a press on it. A test tool's own waiting
 * looks half a second after it looked last, and its script is compiled while the page is drawn.
 */
function sayWhenUsable({ name, usable }) {
  new MutationObserver((_, observer) => {
    if (![...document.querySelectorAll('button')].some((button) => button.textContent.trim() === name)) return;
    observer.disconnect();
    requestAnimationFrame(() => setTimeout(() => console.debug(usable + Date.now())));
  }).observe(document, { childList: true, subtree: true });
}

/** Until a page can be used with a processor four times as slow, s, with what it sent as script, bytes; the page is new each time. */
async function once(browser, address, name) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.addInitScript(sayWhenUsable, { name, usable });
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const scripts = new Map();
  session.on('Network.responseReceived', (e) => e.type === 'Script' && scripts.set(e.requestId, 0));
  session.on(
    'Network.loadingFinished',
    (e) => scripts.has(e.requestId) && scripts.set(e.requestId, e.encodedDataLength),
  );
  const said = page.waitForEvent('console', (message) => message.text().startsWith(usable));
  const start = Date.now();
  await page.goto(address);
  const seconds = (Number((await said).text().slice(usable.length)) - start) / 1000;
  await page.waitForTimeout(500);
  await context.close();
  return { seconds, bytes: [...scripts.values()].reduce((a, b) => a + b, 0) };
}

const middle = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

/** Both pages one after the other, so that a slow minute slows both. */
async function pair(browser, address) {
  const ours = await once(browser, address, 'Go to the pull');
  return { ours, bare: process.env.BARE ? await once(browser, process.env.BARE, 'Ready') : null };
}

/** Script over the wire, and how long until the first page can be used on a slow machine, beside a bare page of the same libraries. */
export async function firstPage({ browser, address, row }) {
  const all = [];
  while (all.filter(isCalm).length < rounds && all.length < mostRounds)
    all.push(await watched(() => pair(browser, address)));
  const counted = calmest(all, rounds);
  tell('first page', counted);
  const pairs = counted.map((c) => c.value);
  const seconds = middle(pairs.map((p) => p.ours.seconds));
  if (process.env.BARE) {
    const least = middle(pairs.map((p) => p.bare.seconds));
    row('first page: interactive with a processor four times as slow, over a bare page', seconds / least, 'times', 1.5);
    console.error(`first page ${seconds.toFixed(2)} s, bare page ${least.toFixed(2)} s`);
  }
  row('first page: script, as sent', middle(pairs.map((p) => p.ours.bytes)) / 1000, 'kB', 320);
}
