import { calmly } from './calm.mjs';
import { percentile } from './percentile.mjs';

const changes = 40;
const warmUp = 5;

/** Some doses typed, one after the other: how long the answers took, and the shots they would make, ms. */
async function typed(browser, address) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${address}/prepare`);
  await page.getByRole('img', { name: /^Predicted shot/ }).waitFor();
  await page.waitForTimeout(2000);
  const answers = [];
  const predictions = [];
  for (let i = 0; i < changes; i++) {
    // every dose is a new one, so that nothing is known already
    const dose = (14 + i * 0.1).toFixed(1);
    const took = await page.evaluate(async (dose) => {
      const label = [...document.querySelectorAll('label')].find((l) => l.textContent.startsWith('Dose'));
      const field = document.getElementById(label.htmlFor);
      const ratio = [...document.querySelectorAll('div')].find((d) => /^Ratio 1 : /.test(d.textContent));
      const chart = [...document.querySelectorAll('svg')].find((s) =>
        /^Predicted shot/.test(s.getAttribute('aria-label') ?? ''),
      );
      const drawn = () => [...chart.querySelectorAll('path')].map((p) => p.getAttribute('d')).join();
      const before = { ratio: ratio.textContent, drawn: drawn() };
      const start = performance.now();
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, dose);
      field.dispatchEvent(new Event('input', { bubbles: true }));
      const seen = {};
      while (performance.now() - start < 2000 && (seen.answer === undefined || seen.prediction === undefined)) {
        await new Promise(requestAnimationFrame);
        if (ratio.textContent !== before.ratio) seen.answer ??= performance.now() - start;
        if (drawn() !== before.drawn) seen.prediction ??= performance.now() - start;
      }
      return seen;
    }, dose);
    if (i >= warmUp) {
      answers.push(took.answer ?? Infinity);
      predictions.push(took.prediction ?? Infinity);
    }
    await page.waitForTimeout(350);
  }
  await page.close();
  return { answers, predictions };
}

/** A dose typed into the sheet: until its answers stand on the screen, and until the shot it would make does. */
export async function typing({ browser, address, row }) {
  const { answers, predictions } = await calmly('typing', () => typed(browser, address));
  row('typing: dose to its answers on screen (nine in ten)', percentile(answers, 0.9), 'ms', 100);
  row('typing: dose to the shot it would make on screen (nine in ten)', percentile(predictions, 0.9), 'ms', 100);
}
