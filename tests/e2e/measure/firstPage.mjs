/** Script over the wire, and how long until the first page can be used on a slow machine. */
export async function firstPage({ browser, address, row }) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  const session = await page.context().newCDPSession(page);
  await session.send('Network.enable');
  await session.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const scripts = new Map();
  session.on('Network.responseReceived', (e) => e.type === 'Script' && scripts.set(e.requestId, 0));
  session.on(
    'Network.loadingFinished',
    (e) => scripts.has(e.requestId) && scripts.set(e.requestId, e.encodedDataLength),
  );
  const start = Date.now();
  await page.goto(address);
  await page.getByRole('button', { name: 'Go to the pull' }).waitFor();
  row('first page: interactive with a processor four times as slow', (Date.now() - start) / 1000, 's', 1.5);
  await page.waitForTimeout(500);
  row('first page: script, as sent', [...scripts.values()].reduce((a, b) => a + b, 0) / 1000, 'kB', 300);
  await page.close();
}
