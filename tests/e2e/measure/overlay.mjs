import { calmly } from './calm.mjs';

/** From the last tick until a hand is at the button, at the quickest, ms. */
const handMs = 500;

/** Twenty shots over each other, from the click to the drawing, so long after the last tick, ms. */
async function fromClick(browser, address, afterMs) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 1600 } });
  await page.goto(`${address}/ledger`);
  for (let i = 0; i < 20; i++)
    await page
      .getByLabel(/^Compare shot/)
      .nth(i)
      .check();
  await page.waitForTimeout(afterMs);
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
  await page.close();
  return took;
}

/** What is ticked is fetched while the hand goes to the button; clicked at the tick itself, the answer is waited for. */
export async function overlay({ browser, address, row }) {
  for (const [name, afterMs] of [
    ['overlay of 20 traces, clicked at the last tick itself', 0],
    ['overlay of 20 traces, from click to drawn', handMs],
  ])
    row(name, await calmly(name, () => fromClick(browser, address, afterMs)), 'ms', 200);
}
