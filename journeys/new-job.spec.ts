import { expect, test } from '@playwright/test';
import { cell, comeInAs, goTo, pickIn, saved, typeIn, passGates } from './workbench.ts';

test('a new, empty job grows from the first circuit to a started test', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job').fill('Gull Cottage');
  await page.getByRole('button', { name: 'Start empty' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Gull Cottage' })).toBeVisible();

  await test.step('nothing is known, and nothing pretends to be', async () => {
    await goTo(page, 'Limits');
    await expect(page.getByRole('heading', { name: /Nothing to check yet|Limits/ })).toBeVisible();
    await goTo(page, 'Islanding test');
    await expect(page.getByRole('heading', { name: 'No test yet' })).toBeVisible();
  });

  await test.step('site', async () => {
    await goTo(page, 'Site');
    await page.getByLabel('Supply', { exact: true }).selectOption('Single-phase');
    for (const [label, value] of [
      ['Voltage, line to neutral', '230'],
      ['Service rating, each line', '63'],
      ['Hottest air at the equipment', '35'],
      ['Coldest air at the equipment', '5'],
      ['Hours the backed-up load should last', '4'],
    ] as const) {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press('Enter');
    }
    await page.getByLabel('Frequency', { exact: true }).selectOption('50 Hz');
    await page.getByLabel('Code profile', { exact: true }).selectOption('Metric (IEC)');
    await page.getByLabel('Altitude', { exact: true }).fill('minus ten');
    await page.getByLabel('Altitude', { exact: true }).press('Enter');
    await expect(
      page.getByText('Not taken over: "minus ten" is not a length, as 12 m or 40 ft'),
    ).toBeVisible();
    await page.getByLabel('Altitude', { exact: true }).fill('10');
    await page.getByLabel('Altitude', { exact: true }).press('Enter');
  });

  await test.step('loads, by keyboard', async () => {
    await goTo(page, 'Loads');
    await page.getByRole('button', { name: 'Add the first circuit' }).click();
    await typeIn(page, cell(page, 'New circuit', 0), 'Kitchen');
    await pickIn(page, cell(page, 'Kitchen', 1), 'L1');
    await typeIn(page, cell(page, 'New item', 0), 'Fridge');
    await typeIn(page, cell(page, 'Fridge', 4), '150');
    await typeIn(page, cell(page, 'Fridge', 5), '0,85');
    await pickIn(page, cell(page, 'Fridge', 6), 'capacitor-motor');
    await typeIn(page, cell(page, 'Fridge', 11), '10');
    await pickIn(page, cell(page, 'Fridge', 12), 'must');
    await typeIn(page, cell(page, 'Fridge', 13), '60000');
    await cell(page, 'Fridge', 0).click();
    await page.keyboard.press('Alt+Enter');
    await typeIn(page, cell(page, 'New item', 4), '60');
    await expect(cell(page, 'New item', 5)).toContainText('not known');
  });

  await test.step('stack, then partitions', async () => {
    await goTo(page, 'Stack');
    await page.getByRole('button', { name: 'Add a stack' }).click();
    await page.getByLabel('Inverter type', { exact: true }).selectOption('Sample hybrid 3 kVA single-phase');
    await page.getByLabel('Arrangement', { exact: true }).selectOption('Parallel on one line');
    await page.getByLabel('Units', { exact: true }).fill('2');
    await page.getByLabel('Units', { exact: true }).press('Enter');
    await page.getByLabel('Battery', { exact: true }).selectOption('A battery bank');
    await page.getByLabel('Battery type', { exact: true }).selectOption('Sample 51.2 V 50 Ah wall module');
    for (const [label, value] of [
      ['Modules', '4'],
      ['Backup reserve', '50'],
      ['Cut-off', '10'],
      ['Its rating', '125'],
      ['Charge setting, each unit', '40'],
      ['Charging from grid, each unit', '500'],
    ] as const) {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByLabel(label, { exact: true }).press('Enter');
    }
    // At 35 °C: 1 − 0.15 · 10/15 = 0.9; 2 · 3000 · 0.9 / 1.05 = 5142.9
    await expect(page.getByRole('row', { name: /^L1 5.14 kVA/ })).toBeVisible();
    await page.getByLabel('Modules', { exact: true }).fill('0');
    await page.getByLabel('Modules', { exact: true }).press('Enter');
    await expect(page.getByText('Not taken over: a bank has 1 to 512 modules')).toBeVisible();
    await goTo(page, 'Partitions');
    await page.getByRole('button', { name: 'Add grid side and backup output' }).click();
    await page.getByRole('button', { name: /^Kitchen,/ }).click();
    await page.getByRole('menuitem', { name: 'Backup output' }).click();
    await expect(
      page.getByRole('region', { name: 'Backup output' }).getByRole('button', { name: /^Kitchen,/ }),
    ).toBeVisible();
  });

  await test.step('limits name what is missing, and the link leads there', async () => {
    await goTo(page, 'Limits');
    await page.getByRole('button', { name: /Continuous load on the line, Island: unknown/ }).click();
    await page.getByRole('dialog').getByRole('link', { name: 'power factor of New item' }).click();
    await expect(page).toHaveURL(/loads#field=/);
    await expect(page.locator(':focus')).toHaveAttribute('data-field', /powerFactor$/);
    await page.keyboard.press('Enter');
    await page.keyboard.type('1');
    await page.keyboard.press('Enter');
    await pickIn(page, cell(page, 'New item', 6), 'steady');
    await saved(page);
    await goTo(page, 'Limits');
    // (150 / 0.85 at 0.85) + 60: √((150 + 60)² + 93²) = 229.7 VA
    await page.getByRole('button', { name: /Continuous load on the line, Island: within/ }).click();
    await expect(page.getByRole('dialog')).toContainText('Stack L1 carries 230 VA of 5.14 kVA');
    await page.keyboard.press('Escape');
  });

  await test.step('the test follows from the design', async () => {
    await goTo(page, 'Islanding test');
    await page.getByRole('button', { name: 'Start a run' }).click();
    await passGates(page);
    await page.getByRole('button', { name: /Stack L1: 50 % load/ }).click();
    // 0.5 · 0.9 · 2 · 2700 / 1.05 = 2314.3 W, more than half of the bank: 0.92 · 44.8 · 100 / 1.1 / 2 = 1873.5 W = 8.15 A
    await expect(page.getByText('Put 1.87 kW of resistive load (8.15 A) on L1')).toBeVisible();
    await page.getByLabel('Load current L1').fill('8.2');
    await page.getByLabel('Load current L1').press('Enter');
    await expect(page.getByRole('article').getByText('within', { exact: true })).toBeVisible();
  });
});

test('a viewer looks at everything and changes nothing', async ({ page }) => {
  await comeInAs(page, 'Vic');
  await expect(page.getByRole('button', { name: 'Start empty' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Fernhollow veterinary practice' }).click();
  await expect(page.getByText('You may look at this design, not change it.')).toBeVisible();
  await expect(page.getByLabel('Hottest air at the equipment', { exact: true })).toBeDisabled();
  await goTo(page, 'Loads');
  await expect(page.getByRole('button', { name: 'Add circuit' })).toHaveCount(0);
  await cell(page, 'Fridge alarm', 4).click();
  await page.keyboard.press('9');
  await expect(cell(page, 'Fridge alarm', 4)).toHaveText('15');
  await goTo(page, 'Islanding test');
  await expect(page.getByRole('button', { name: 'Start a run' })).toBeDisabled();
});
