import { expect, expectAccessible, expectNoSidewaysScroll, test, type, sayClock } from './bench';

/** A pull as life records it: twenty idle seconds, a gauge that rests at 0.6 bar, the cup lifted at the end. */
function lifelike(): string {
  const rows = Array.from({ length: 700 }, (_, i) => {
    const t = i * 0.1;
    const bar = 0.6 + (t > 20 && t < 55 ? Math.min(8, (t - 20) * 3) : 0);
    const grams = t > 65 ? -120 : Math.max(0, Math.min(t, 55) - 30) * 1.4;
    return `${t.toFixed(1)},${bar.toFixed(2)},${grams.toFixed(1)}`;
  });
  return ['time (s),pressure (bar),weight (g)', ...rows].join('\n');
}

test('a trace from elsewhere is looked at, completed, asked about and stored as it was shown', async ({ page }) => {
  await page.goto('/ledger/import');
  const file = { name: 'elsewhere.csv', mimeType: 'text/csv', buffer: Buffer.from(lifelike()) };
  await page.getByLabel('File').setInputFiles(file);
  await sayClock(page);
  await expect(
    page.getByText('The record began 20 s before the lever moved; times count from the lever.'),
  ).toBeVisible();
  await expect(page.getByText('The gauge rested at 0.6 bar; that is taken off.')).toBeVisible();
  await expect(page.getByText(/The cup was lifted off the scale at 45 s/)).toBeVisible();
  await expect(page.getByText(/empty cells/)).toHaveCount(0);

  await type(page, /^Dose/, '17.5');
  await type(page, /^Target yield/, '36');
  await page.getByLabel('Beans').selectOption({ index: 1 });
  await page.getByLabel('Grinder').selectOption({ index: 1 });
  await type(page, /^Grind,/, '190');
  await page.getByLabel('Plan').selectOption({ label: 'Early peak, long ease' });
  await type(page, /^Group at lever-up/, '78');
  await page.getByRole('button', { name: 'Note how the puck was prepared' }).click();
  await page.getByLabel('stirred').check();
  await page.getByLabel('What was seen').fill('a spurt at the left');
  await page.getByLabel('Pulled at').fill('2020-01-05T07:10');
  // what looks odd is asked about before it is stored
  const save = page.getByRole('button', { name: 'Save the shot' });
  await expect(page.getByText(/This grinder was used from .* to .*\. Is the setting right\?/)).toBeVisible();
  await expect(page.getByText(/after this shot\. Are date and beans right\?/)).toBeVisible();
  await expect(save).toBeDisabled();
  await expectAccessible(page);
  await expectNoSidewaysScroll(page);
  await page.getByLabel('The setting is right').check();
  await page.getByLabel('Both are right').check();
  await expect(save).toBeEnabled();
  await expect(page.getByTestId('stored')).toContainText('1 : 2.00');
  const shown = (await page.getByTestId('stored').textContent())!;
  await save.click();

  await expect(page).toHaveURL(/\/taste\/\d+/);
  const id = /\/taste\/(\d+)/.exec(page.url())![1];
  const { shot, groupC, seen, preparation } = await (await page.request.get(`/api/shots/${id}`)).json();
  for (const [number, digits, words] of [
    [shot.measures.cupGrams, 1, 'g in the cup'],
    [shot.measures.secondsFromLever, 1, 's from lever'],
    [shot.measures.secondsToDrops, 1, 's to first drops'],
    [shot.measures.meanFlowGramsPerS, 2, 'g/s'],
  ] as const)
    expect(shown).toContain(`${number.toFixed(digits)} ${words}`);
  expect([shot.yieldGrams, shot.doseGrams, shot.grindSetting, groupC, seen, shot.plan]).toEqual([
    36,
    17.5,
    190,
    78,
    'a spurt at the left',
    'Early peak, long ease',
  ]);
  expect(preparation).toContain('stirred');
  await expect(page.getByText(/The gauge rested at 0.6 bar/)).toBeVisible();

  // the same file again
  await page.goto('/ledger/import');
  await page.getByLabel('File').setInputFiles(file);
  await sayClock(page);
  await expect(page.getByText(`This file is already stored as shot ${id}.`)).toBeVisible();
  await expect(save).toBeDisabled();
  // nothing is to be learned of a grinder at 190
  expect((await page.request.delete(`/api/shots/${id}`)).ok()).toBe(true);
});
