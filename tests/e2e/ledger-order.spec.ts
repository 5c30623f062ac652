import { expect, expectAccessible, expectNoSidewaysScroll, test } from './bench';

test('the ledger is ordered by a column and filtered, and Back comes back to it', async ({ page }, info) => {
  await page.goto('/ledger');
  const rows = page.locator('tbody tr');
  await expect(rows.first()).toBeVisible();
  const many = await rows.count();
  // on a phone the wide columns are folded away; the time is always there
  await page.getByRole('button', { name: /^Time/ }).click();
  await expect(page).toHaveURL(/order=Time/);
  await expect(page.getByRole('columnheader', { name: /^Time/ })).toHaveAttribute('aria-sort', 'descending');
  const first = await rows.first().getByRole('link').first().textContent();
  await page.getByRole('button', { name: /^Time/ }).click();
  await expect(page.getByRole('columnheader', { name: /^Time/ })).toHaveAttribute('aria-sort', 'ascending');
  await expect(rows.first().getByRole('link').first()).not.toHaveText(first!);
  await page.getByText('More filters').click();
  await page.getByLabel('Who').selectOption({ index: 1 });
  await expect(rows).not.toHaveCount(many);
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  const address = page.url();
  await rows.first().getByRole('link').first().click();
  await expect(page).toHaveURL(/\/taste\/\d+/);
  await page.goBack();
  await expect(page).toHaveURL(address);
  await expect(page.getByRole('columnheader', { name: /^Time/ })).toHaveAttribute('aria-sort', 'ascending');
  expect(info.errors).toHaveLength(0);
});
