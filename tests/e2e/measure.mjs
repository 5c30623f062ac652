// Measures what needs a browser: node measure.mjs ADDRESS; prints one JSON row a line. The stand-in must not be connected.
import { chromium } from '@playwright/test';

const address = process.argv[2];
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});
const row = (name, value, unit, budget) =>
  console.log(JSON.stringify({ name, value: Math.round(value * 1000) / 1000, unit, budget, ok: value <= budget }));
const percentile = (all, share) => [...all].sort((a, b) => a - b)[Math.max(0, Math.ceil(share * all.length) - 1)];

// the server's own first requests are its start, measured elsewhere
for (const path of ['/prepare', '/ledger', '/ledger/compare?ids=3,4,5', '/pull']) {
  const page = await browser.newPage();
  await page.goto(address + path);
  await page.getByRole('heading', { level: 1 }).waitFor();
  await page.waitForTimeout(500);
  await page.close();
}

// the first page: script over the wire, and how long until it can be used on a slow machine
{
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const scripts = new Map();
  session.on('Network.responseReceived', (e) => e.type === 'Script' && scripts.set(e.requestId, 0));
  session.on('Network.loadingFinished', (e) => scripts.has(e.requestId) && scripts.set(e.requestId, e.encodedDataLength));
  const start = Date.now();
  await page.goto(address);
  await page.getByRole('button', { name: 'Go to the pull' }).waitFor();
  row('first page: interactive with a processor four times as slow', (Date.now() - start) / 1000, 's', 1.5);
  await page.waitForTimeout(500);
  row('first page: script, as sent', [...scripts.values()].reduce((a, b) => a + b, 0) / 1000, 'kB', 300);
  await page.close();
}

// twenty shots over each other, from the click to the drawing
{
  const page = await browser.newPage({ viewport: { width: 1280, height: 1600 } });
  await page.goto(`${address}/ledger`);
  for (let i = 0; i < 20; i++)
    await page
      .getByLabel(/^Compare shot/)
      .nth(i)
      .check();
  const took = await page.evaluate(
    () =>
      new Promise((done) => {
        const button = [...document.querySelectorAll('button')].find((b) => b.textContent.startsWith('Compare '));
        const start = performance.now();
        const look = () =>
          document.querySelectorAll('[data-testid=overlay] path').length >= 40
            ? requestAnimationFrame(() => done(performance.now() - start))
            : requestAnimationFrame(look);
        button.click();
        look();
      }),
  );
  row('overlay of 20 traces, from click to drawn', took, 'ms', 200);
  await page.close();
}

// live: from the device's line to the point in the page's path
{
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/pull`);
  // Node 20 has no WebSocket client of its own, so the device lives in a page of its own
  const bench = await browser.newPage();
  await bench.goto(`${address}/api/household`);
  await bench.evaluate(
    (to) =>
      new Promise((open) => {
        window.device = new WebSocket(to);
        window.device.onopen = () => {
          window.device.send('{"hello":"ruddy-line/1","device":"Measure","channels":{"pressure":"bar"}}\n');
          open();
        };
      }),
    `${address.replace('http', 'ws')}/instruments`,
  );
  await page.getByRole('button', { name: /make ready/ }).click();
  await page.getByTestId('sentence').waitFor();
  await page.waitForTimeout(500);
  await page.evaluate(() => {
    const drawn = (window.drawn = []);
    let worst = 0;
    let last = performance.now();
    const look = () => {
      const now = performance.now();
      worst = Math.max(worst, now - last);
      last = now;
      window.worstFrame = worst;
      const path = document.querySelector('[data-testid=trace-pressure]')?.getAttribute('d') ?? '';
      const longest = path.split(/[ML]/).length - 1;
      while (drawn.length < longest) drawn.push(Date.now());
      requestAnimationFrame(look);
    };
    look();
  });
  const sent = await bench.evaluate(
    () =>
      new Promise((done) => {
        const times = [];
        const timer = setInterval(() => {
          const t = times.push(Date.now());
          window.device.send(`{"t":${(t * 0.02).toFixed(2)},"pressure":${(2 + Math.sin(t / 40)).toFixed(2)}}\n`);
          if (t < 500) return;
          clearInterval(timer);
          done(times);
        }, 20);
      }),
  );
  await page.waitForTimeout(600);
  const { drawn, worst } = await page.evaluate(() => ({ drawn: window.drawn, worst: window.worstFrame }));
  const took = sent.map((t, i) => (drawn[i] ?? Infinity) - t).filter(Number.isFinite);
  row('live: sample in to point on screen at 50/s (p99)', percentile(took, 0.99), 'ms', 100);
  row(`live: points missing on the screen of ${sent.length}`, sent.length - took.length, 'points', 0);
  row('live: longest frame', worst, 'ms', 50);
  await bench.close();
  await page.request.post(`${address}/api/pull/discard`);
}
await browser.close();
