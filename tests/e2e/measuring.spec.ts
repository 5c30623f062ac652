import { expect, expectAccessible, onTheSheet, test } from './bench';

interface Way {
  family: string;
  title: string;
  /** Labels of the columns, and the readings of some kitchen. */
  columns: string[];
  rows: string[][];
  /** What it comes to. */
  says: RegExp;
  /** A reading that cannot be, in the last column, and what is said of it. */
  wrong: [string, RegExp];
}

const ways: Way[] = [
  {
    family: 'PortableLever',
    title: 'Weigh the water',
    columns: ['Poured in, g', 'Came out, g', 'Water, °C'],
    rows: [
      ['62', '57', '90'],
      ['61.5', '56.8', '90'],
      ['62.4', '57.1', '89'],
    ],
    says: /stays behind/i,
    wrong: ['180', /must lie between/],
  },
  {
    family: 'PortableLever',
    title: 'Weigh a spent puck',
    columns: ['Dose, g', 'Wet puck, g'],
    rows: [
      ['16', '33.1'],
      ['16', '32.6'],
      ['16.2', '33.5'],
    ],
    says: /keeps 1\.0\d/i,
    wrong: ['900', /must lie between/],
  },
  {
    family: 'BoilerSpring',
    title: 'Let the spring run free',
    columns: ['Water moved, ml', 'Gauge, bar'],
    rows: [
      ['2', '8.8'],
      ['12', '7.9'],
      ['22', '7,1'],
      ['32', '6.2'],
    ],
    says: /bar/,
    wrong: ['90', /must lie between/],
  },
  {
    family: 'PortableLever',
    title: 'Hold against a blind basket',
    columns: ['Held, s', 'Gauge, bar'],
    rows: [
      ['0', '6'],
      ['10', '5.8'],
      ['20', '5.62'],
      ['30', '5.44'],
    ],
    says: /seal/i,
    wrong: ['90', /must lie between/],
  },
  {
    family: 'BoilerDirect',
    title: 'Log temperatures',
    columns: ['Since switch-on, min', 'Reads, °C'],
    rows: [
      ['3', '19'],
      ['7', '30'],
      ['12', '52'],
      ['17', '66'],
      ['22', '74'],
      ['27', '77'],
    ],
    says: /readings/,
    wrong: ['400', /must lie between/],
  },
];

for (const way of ways) {
  test(`measured with kitchen things: ${way.title.toLowerCase()}`, async ({ page }, info) => {
    test.skip(
      info.project.name === 'phone' && way.title !== 'Weigh a spent puck',
      'one of them is enough on the phone',
    );
    const { id } = await onTheSheet(page, way.family, `${way.title} ${info.project.name}`);
    await page.goto(`/machines/${id}?view=measure`);
    await page.getByRole('button', { name: `${way.title}: begin` }).click();
    const cell = (row: number, column: number) =>
      page.getByRole('textbox', { name: `${way.columns[column]}, reading ${row + 1}`, exact: true });
    for (const [i, row] of way.rows.entries()) for (const [j, text] of row.entries()) await cell(i, j).fill(text);

    const last = way.columns.length - 1;
    await cell(0, last).fill(way.wrong[0]);
    await page.getByRole('button', { name: 'Calculate' }).click();
    await expect(page.getByRole('alert').filter({ hasText: way.wrong[1] })).toBeVisible();
    await cell(0, last).fill(way.rows[0]![last]!);

    await page.getByRole('button', { name: 'Calculate' }).click();
    const keep = page.getByRole('button', { name: /^Save (number|numbers)$/ });
    await expect(keep).toBeVisible();
    await expect(page.getByText(way.says).first()).toBeVisible();
    // how sure it is, and what it was before
    await expect(page.getByText(/^was [\d.]+/).first()).toBeVisible();
    await expect(page.getByText(/^±[\d.]+/).first()).toBeVisible();
    await expect(page.getByRole('img', { name: /read and fitted, with residuals/ })).toBeVisible();
    if (way.title === 'Weigh a spent puck') await expectAccessible(page);
    await keep.click();
    await expect(page.getByText(/^Saved\. These numbers/)).toBeVisible();
    const { spec } = await (await page.request.get(`/api/machines/${id}`)).json();
    expect(spec.measured.length).toBeGreaterThan(0);
  });
}
