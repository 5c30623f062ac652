import { expect, expectAccessible, expectNoSidewaysScroll, test } from './bench';

/** Every chart has its numbers behind it, one press away. */
for (const [path, charts] of [
  ['/prepare', [/^Table: Predicted shot/]],
  ['/taste/12', [/^Table: Trace of shot 12/]],
  ['/ledger/compare?ids=14%2C10', [/^Table: 2 shots over each other/]],
  ['/warm', [/^Table: Group temperature against the time of day/]],
  ['/machines/1?view=can', [/^Table: /]],
] as const) {
  test(`the charts of ${path} are tables too`, async ({ page }) => {
    await page.goto(path);
    for (const name of charts) {
      const button = page.getByRole('button', { name }).first();
      const label = (await button.getAttribute('aria-label'))!.replace(/^Table: /, '');
      await button.click();
      const table = page.getByRole('region', { name: `${label}, as a table` });
      await expect(table.getByRole('row').nth(3)).toBeAttached();
      await expect(table.getByRole('columnheader').nth(1)).not.toBeEmpty();
      // numbers, and in a row more than its first
      await expect(table.getByRole('row').nth(2)).toContainText(/\d.*\d/);
      await expectAccessible(page);
      await expectNoSidewaysScroll(page);
      await page.getByRole('button', { name: `Chart: ${label}` }).click();
      await expect(page.getByRole('img', { name: label }).or(page.getByRole('group', { name: label }))).toBeVisible();
    }
  });
}
