import { calmly } from './calm.mjs';

/** The longest of some changes from one page to another, ms. */
async function longest(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/prepare`);
  await page.getByRole('button', { name: 'Go to the pull' }).waitFor();
  // each of them has been there once
  const names = ['Warm', 'Ledger', 'Shelf', 'Prepare'];
  const took = [];
  for (let round = 0; round < 3; round++) {
    for (const name of names) {
      const ms = await page.evaluate(
        (to) =>
          new Promise((done) => {
            const link = [...document.querySelectorAll('nav a')].find((a) => a.textContent.includes(to));
            const start = performance.now();
            const look = () =>
              document.querySelector('h1')?.textContent === to
                ? requestAnimationFrame(() => done(performance.now() - start))
                : requestAnimationFrame(look);
            link.click();
            look();
          }),
        name,
      );
      if (round > 0) took.push(ms);
      await page.waitForTimeout(300);
    }
  }
  await page.close();
  return Math.max(...took);
}

/** From the press on the strip or the rail to the other page's heading. */
export async function workspace({ browser, address, row }) {
  const name = 'opening another workspace';
  row(name, await calmly(name, () => longest(browser, address)), 'ms', 150);
}
