/** Twenty shots over each other, from the click to the drawing. */
export async function overlay({ browser, address, row }) {
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
