import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** No accessibility fault of WCAG 2.2 A and AA that a machine can find. */
export async function expectAccessible(page: Page) {
  // the whole page at once: on a phone the bar at the bottom lies over whatever happens to be under it
  await expect(page.getByText('One moment.')).toHaveCount(0);
  const window = page.viewportSize()!;
  await expect(async () => {
    const height = await page.evaluate(() => document.documentElement.scrollHeight);
    await page.setViewportSize({ width: window.width, height: Math.max(window.height, height + 80) });
    const over = await page.evaluate(() => document.documentElement.scrollHeight - globalThis.innerHeight);
    expect(over).toBeLessThanOrEqual(0); // what loaded meanwhile is in the window too
  }).toPass();
  const found = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
  await page.setViewportSize(window);
  expect(found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(', ')}`)).toEqual([]);
}

/** Nothing sticks out at the side. */
export async function expectNoSidewaysScroll(page: Page) {
  const over = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
  expect(over).toBeLessThanOrEqual(0);
}

/** The number that a live figure shows. */
export async function live(page: Page, name: string): Promise<number> {
  return Number(await page.getByTestId(`live-${name}`).textContent());
}

/** No pull is left over from an earlier test. */
export async function clearPull(page: Page) {
  await page.request.post('/api/pull/discard');
}

/** A number field set by typing. */
export async function type(page: Page, label: RegExp, value: string) {
  await page.getByRole('textbox', { name: label }).fill(value);
}
