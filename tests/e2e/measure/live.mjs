import { percentile } from './percentile.mjs';

const gaugeEveryMs = 20;
const warmUpSeconds = 3;
const soakSeconds = 300;

/** Memory of a page in MB after everything that can go has gone. */
async function heapOf(session) {
  await session.send('HeapProfiler.collectGarbage');
  const { metrics } = await session.send('Performance.getMetrics');
  return metrics.find((m) => m.name === 'JSHeapUsedSize').value / 1e6;
}

/**
 * A pull with a gauge at 50 samples a second and a scale at 10: from the device's line to the point in the page's path, frames, samples
 * lost, memory.
 */
export async function live({ browser, address, row, seconds }) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  await page.goto(`${address}/pull`);
  // Node 20 has no WebSocket client of its own, so the devices live in a page of their own
  const bench = await browser.newPage();
  await bench.goto(`${address}/api/household`);
  await bench.evaluate(
    (to) =>
      new Promise((open) => {
        const hello = (channel, unit) =>
          `{"hello":"ruddy-line/1","device":"Measured ${channel}","channels":{"${channel}":"${unit}"}}\n`;
        window.gauge = new WebSocket(to);
        window.scale = new WebSocket(to);
        let left = 2;
        for (const [socket, channel, unit] of [
          [window.gauge, 'pressure', 'bar'],
          [window.scale, 'weight', 'g'],
        ])
          socket.onopen = () => {
            socket.send(hello(channel, unit));
            if (--left === 0) open();
          };
      }),
    `${address.replace('http', 'ws')}/instruments`,
  );
  await page.getByRole('button', { name: /make ready/ }).click();
  await page.getByTestId('sentence').waitFor();
  await page.waitForTimeout(500);
  await page.evaluate((from) => {
    const seen = (window.seen = { at: new Map(), frames: [], counts: true });
    const began = performance.now();
    let last = began;
    // the axis moves on with a long pull, so the newest point is told by how often the path has grown
    const path = () => document.querySelector('[data-testid=trace-pressure]');
    const look = () => {
      const now = performance.now();
      if (seen.counts && now - began > from * 1000) seen.frames.push(now - last);
      last = now;
      const count = Number(path()?.dataset.points ?? 0);
      if (count > 0 && !seen.at.has(count)) seen.at.set(count, Date.now());
      requestAnimationFrame(look);
    };
    look();
  }, warmUpSeconds);
  const sending = bench.evaluate(
    ({ every, length }) =>
      new Promise((done) => {
        const times = [];
        const began = performance.now();
        const timer = setInterval(() => {
          const due = Math.floor((performance.now() - began) / every);
          while (times.length < due && times.length * every < length * 1000) {
            const n = times.push(Date.now());
            const t = (n * every) / 1000;
            window.gauge.send(`{"t":${t.toFixed(2)},"pressure":${(4 + 2 * Math.sin(n / 40)).toFixed(2)}}\n`);
            if (n % 5 === 0)
              window.scale.send(`{"t":${t.toFixed(2)},"weight":${(80 + Math.max(0, t - 6) * 0.03).toFixed(2)}}\n`);
          }
          if (times.length * every < length * 1000) return;
          clearInterval(timer);
          done(times);
        }, 5);
      }),
    { every: gaugeEveryMs, length: seconds },
  );
  const soak = seconds >= soakSeconds;
  let before = 0;
  if (soak) {
    await page.waitForTimeout(60_000);
    // frames are not counted while the memory is looked through
    await page.evaluate(() => (window.seen.counts = false));
    before = await heapOf(session);
    await page.waitForTimeout(1000);
    await page.evaluate(() => (window.seen.counts = true));
  }
  const sent = await sending;
  await page.waitForTimeout(600);
  await page.evaluate(() => (window.seen.counts = false));
  const after = soak ? await heapOf(session) : 0;
  const { at, frames } = await page.evaluate(() => ({ at: [...window.seen.at], frames: window.seen.frames }));
  // a point is on the screen from the first look at which at least so many are drawn
  const looks = at.sort((a, b) => a[0] - b[0]);
  const skipped = (warmUpSeconds * 1000) / gaugeEveryMs;
  const took = [];
  let look = 0;
  for (let n = 0; n < sent.length; n++) {
    while (look < looks.length && looks[look][0] < n + 1) look++;
    if (look === looks.length) break;
    if (n >= skipped) took.push(looks[look][1] - sent[n]);
  }
  const drawn = looks.at(-1)?.[0] ?? 0;
  row(`live: sample in to point on screen at 50/s for ${seconds} s (p99)`, percentile(took, 0.99), 'ms', 100);
  row(`live: points missing on the screen of ${sent.length}`, sent.length - drawn, 'points', 0);
  row('live: longest frame', Math.max(...frames), 'ms', 50);
  row(
    'live: frames over 50 ms, of a thousand',
    (frames.filter((f) => f > 50).length / frames.length) * 1000,
    'frames',
    0,
  );
  // what is kept of the pull itself, three numbers a sample, may grow
  if (soak) row(`live: memory of the page, grown in ${seconds - 60} s`, after - before, 'MB', 10);
  await bench.close();
  await page.request.post(`${address}/api/pull/discard?forGood=true`);
  await page.close();
}
