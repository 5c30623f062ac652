import { expect, expectAccessible, expectNoSidewaysScroll, test } from './bench';

test('R10 is drawn against the age of one bag, with its line in words and as a table, and kept in the address', async ({
  page,
}) => {
  await page.goto('/ledger');
  await page.getByRole('link', { name: 'Trends' }).click();
  await page.getByLabel('Beans').selectOption({ label: 'Marmot Whistle' });
  await page.getByLabel('Machine').selectOption({ label: 'Pack lever' });
  const panel = page.getByRole('region', { name: 'One against the other' });
  await expect(panel).toContainText(/R10 falls by .* for each day of age from roast/);
  await expect(page).toHaveURL(/beans=\d+/);
  await panel.getByRole('button', { name: /^Table: R10 against/ }).click();
  await expect(panel.getByRole('row').nth(5)).toBeAttached();
  await page.reload();
  await expect(panel).toContainText('R10 falls by');
  await expect(page.getByRole('img', { name: /^R10 in the order of time/ })).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
});

test('what goes with liking leads to its drawing', async ({ page }) => {
  await page.goto('/ledger/trends');
  const liked = page.getByRole('region', { name: 'What goes with liking' });
  await expect(liked).toContainText(/Over \d+ tasted shots/);
  const fold = liked.getByText('No more than chance');
  if (await fold.isVisible()) await fold.click();
  await liked.getByRole('button', { name: 'Water at the puck' }).click();
  await expect(page.getByRole('heading', { name: 'Liking against water at the puck' })).toBeVisible();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
});

test('the arm is shown plan by plan, and leads to the lesson that would help', async ({ page }) => {
  await page.goto('/ledger/arm');
  await expect(page.getByRole('img', { name: /^Pressure of the last pulls/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Phase by phase' }).getByRole('row').nth(2)).toBeVisible();
  await page.getByLabel('Plan and machine').selectOption({ index: 1 });
  await expect(page).toHaveURL(/machine=\d+&plan=/);
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await page.goto('/ledger/arm');
  await page.getByRole('link', { name: 'Practise it' }).click();
  await expect(page).toHaveURL(/\/practice\/.+/);
});
