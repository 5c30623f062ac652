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

test('a view is saved under a name, found again and deleted', async ({ page }, info) => {
  const name = `Liked ${info.project.name}`;
  await page.goto('/ledger');
  const views = page.getByRole('group', { name: 'Views' });
  await page.getByLabel('Liked at least').selectOption({ label: '5 of 5' });
  await views.getByRole('button', { name: 'Save this view' }).click();
  const dialog = page.getByRole('dialog', { name: 'Save this view' });
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toContainText(/Name/);
  await dialog.getByLabel('Name').fill(name);
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  await page.goto('/ledger');
  await views.getByRole('link', { name }).click();
  await expect(page).toHaveURL(/liked=5/);
  await expect(page.getByLabel('Liked at least')).toHaveValue('5');
  await expectNoSidewaysScroll(page);
  await views.getByRole('button', { name: `Delete the view ${name}` }).click();
  await expect(views.getByRole('link', { name })).toHaveCount(0);
});

test('columns are chosen and moved, and stay in the address', async ({ page }) => {
  await page.goto('/ledger');
  await page.getByRole('button', { name: 'Columns' }).click();
  const dialog = page.getByRole('dialog', { name: 'Columns' });
  await dialog.getByRole('checkbox', { name: 'Ratio' }).focus();
  await page.keyboard.press('Space');
  await dialog.getByRole('checkbox', { name: 'Work' }).focus();
  await page.keyboard.press('Space');
  await dialog.getByRole('button', { name: 'Move Work forward' }).click();
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('columnheader', { name: /^Ratio/ })).toHaveCount(0);
  const heads = await page.getByRole('columnheader').allTextContents();
  expect(heads.findIndex((h) => h.startsWith('Work'))).toBe(heads.findIndex((h) => h.startsWith('Taste')) - 1);
  await page.reload();
  await expect(page.getByRole('columnheader', { name: /^Work/ })).toBeVisible();
  await expectNoSidewaysScroll(page);
});

test('several shots are put right at once, and that is undone', async ({ page }, info) => {
  test.skip(info.project.name === 'phone', 'the same on a wide screen');
  await page.goto('/ledger?search=tomo');
  const rows = page.locator('tbody tr');
  await expect(rows.first()).toContainText('Tomo');
  const first = (await rows.first().getByRole('link').first().textContent())!;
  for (const i of [0, 1]) {
    await rows.nth(i).getByRole('checkbox').focus();
    await page.keyboard.press('Space');
  }
  await page.getByRole('button', { name: 'Change', exact: true }).click();
  const dialog = page.getByRole('dialog', { name: 'Change 2 shots' });
  await dialog.getByLabel('What').selectOption({ label: 'Who brewed' });
  await dialog.getByLabel('New value').selectOption({ label: 'Ilva' });
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('2 shots changed.')).toBeVisible();
  await expect(page.getByRole('link', { name: first, exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: first, exact: true })).toBeVisible();
});

test('of several shots one is brought forward, set beside the others, and the best of the bag is added', async ({
  page,
}) => {
  await page.goto('/ledger/compare?ids=55,52,49');
  await expect(page.getByTestId('overlay')).toBeVisible();
  await page.getByRole('button', { name: 'B, shot 52' }).click();
  await expect(page.getByText('hatched: the plan of B')).toBeVisible();
  await page.getByLabel('Align at').selectOption({ label: 'first pressure' });
  await expect(page.getByTestId('overlay')).toHaveAttribute('aria-label', /first pressure/);
  await page.getByLabel('Below').selectOption({ label: 'resistance' });
  await expect(page.getByText(/^Resistance, /)).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Mean, spread' })).toBeVisible();
  await page.getByRole('button', { name: /^Add the best of/ }).click();
  await expect(page).toHaveURL(/ids=55%2C52%2C49%2C\d+/);
  await page.getByLabel('Drawn').selectOption({ label: 'beside each other' });
  await expect(page.getByTestId('side-by-side').locator('svg')).toHaveCount(4);
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
});

test('a comparison of nothing says what it is for, and the way to it', async ({ page }) => {
  for (const asked of ['', '?ids=55', '?ids=55,55,', '/card', '/card?ids=55']) {
    await page.goto(`/ledger/compare${asked}`);
    await expect(page.getByRole('heading', { name: 'Select two shots or more' })).toBeVisible();
    await expect(page.getByRole('link', { name: 'Card to print or save' })).toHaveCount(0);
  }
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Select shots in the ledger' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ledger' })).toBeVisible();
});
