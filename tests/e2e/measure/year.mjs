import { calmly } from './calm.mjs';

/** Goes through all shots from the newest to the oldest: the pages, and the longest task on the way, ms. */
async function goThrough(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.addInitScript(() => {
    window.longTasks = [];
    new PerformanceObserver((list) => {
      for (const task of list.getEntries()) window.longTasks.push(task.duration);
    }).observe({ type: 'longtask' });
  });
  await page.goto(`${process.env.YEAR}/ledger`);
  const older = page.getByRole('button', { name: 'Older' });
  await older.waitFor();
  await page.waitForTimeout(500);
  // the first page is drawn while the whole application begins, which is measured elsewhere
  await page.evaluate(() => window.longTasks.splice(0));
  let pages = 1;
  for (;;) {
    for (let notch = 0; notch < 12; notch++) {
      await page.mouse.move(640, 500);
      await page.mouse.wheel(0, 300);
      await page.waitForTimeout(16);
    }
    if (await older.isDisabled()) break;
    await older.click();
    pages++;
    await page.getByText(`page ${pages}`, { exact: true }).waitFor();
    await page.waitForLoadState('networkidle');
  }
  const tasks = await page.evaluate(() => window.longTasks);
  await page.close();
  return { pages, longest: Math.max(0, ...tasks) };
}

/** A year of shots, two a day, scrolled page by page. */
export async function year({ browser, address, row }) {
  if (!process.env.YEAR) return;
  const { pages, longest } = await calmly('a year of shots', () => goThrough(browser));
  if (address === process.env.YEAR || pages < 10) throw new Error(`A year has more than ${pages} pages.`);
  row(`a year of shots scrolled, ${pages} pages: longest task`, longest, 'ms', 50);
}
