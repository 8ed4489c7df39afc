import { expect, type Page, test } from '@playwright/test';
import { cell, comeInAs, goTo, pickIn, saved, typeIn } from './workbench.ts';

const fill = async (page: Page, label: string, value: string): Promise<void> => {
  await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByLabel(label, { exact: true }).press('Enter');
};
const finding = (page: Page, words: string | RegExp) => page.getByRole('button', { name: words });

test('a three-phase stack of six units is built, wired, checked, and loses a unit', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job').fill('Alder Clinic');
  await page.getByRole('button', { name: 'Start empty' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Alder Clinic' })).toBeVisible();
  await goTo(page, 'Site');
  await page.getByLabel('Supply', { exact: true }).selectOption('Three-phase');
  await fill(page, 'Voltage, line to neutral', '230');
  await fill(page, 'Hottest air at the equipment', '35');
  await page.getByLabel('Code profile', { exact: true }).selectOption('Metric (IEC)');

  await test.step('type, arrangement, six units: two on each line', async () => {
    await goTo(page, 'Stack');
    await page.getByRole('button', { name: 'Add a stack' }).click();
    await page.getByLabel('Inverter type', { exact: true }).selectOption('Sample hybrid 5 kVA single-phase');
    await page.getByLabel('Arrangement', { exact: true }).selectOption('Three-phase from single-phase units');
    await fill(page, 'Units', '6');
    // 2 · 5000 / 1.05 = 9523.8 VA a line; with one of two lost, 5000 stand alone.
    await expect(page.getByRole('row', { name: /^L1 9.52 kVA 5 kVA 9.52 kVA 9.52 kVA/ })).toBeVisible();
    // For two seconds the type gives twice that.
    await expect(page.getByRole('row', { name: /^L1 19 kVA 10 kVA 19 kVA 19 kVA/ })).toBeVisible();
    await expect(page.getByRole('img', { name: /6 units on L1, L2, L3/ })).toBeVisible();
  });

  await test.step('the parallel bus is planned, and a cable in the wrong place is told', async () => {
    await expect(finding(page, /^unknown Stack: the parallel bus cannot be judged yet/)).toBeVisible();
    await page.getByRole('button', { name: 'Plan the bus by the type’s rule' }).click();
    await expect(finding(page, /the parallel bus is one line through all 6 units/)).toBeVisible();
    await expect(finding(page, /terminators at the two ends \(unit 1 and unit 6\)/)).toBeVisible();
    await page.getByLabel('Cable 3, from', { exact: true }).selectOption('Unit 2');
    await expect(finding(page, /over Stack: more than one cable leaves unit 2/)).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByRole('checkbox', { name: 'Unit 6' }).uncheck();
    await expect(finding(page, /unit 6 is an end of the bus and has no terminator/)).toBeVisible();
    await page.getByRole('button', { name: /^Undo/ }).click();
    await page.getByLabel('Host', { exact: true }).selectOption('Unit 1');
    await expect(finding(page, /unit 1 is the host: battery bus and meter are wired to it/)).toBeVisible();
  });

  await test.step('AC leads: one shorter than the other takes more', async () => {
    await page.getByText(/^Units one by one/).click();
    const leads = page.getByLabel('AC lead', { exact: true });
    await leads.first().fill('2');
    await leads.first().press('Enter');
    const size = page.getByLabel('AC lead size', { exact: true }).first();
    await size.fill('10');
    await size.press('Enter');
    await page.getByRole('button', { name: 'Battery settings and AC lead of unit 1 for all' }).click();
    await expect(finding(page, /the AC leads on L1 are within 0 % of each other/)).toBeVisible();
    await leads.nth(1).fill('3');
    await leads.nth(1).press('Enter');
    await expect(finding(page, /tight Stack: the AC leads on L1 differ by 33.3 %/)).toBeVisible();
  });

  await test.step('eight modules, a closed loop planned from the types', async () => {
    await page.getByLabel('Battery', { exact: true }).selectOption('A battery bank');
    await page.getByLabel('Battery type', { exact: true }).selectOption('Sample 51.2 V 100 Ah rack module');
    await fill(page, 'Modules', '8');
    await page.getByRole('button', { name: 'Plan a closed loop by the types’ rules' }).click();
    await expect(finding(page, /the battery bus passes 8 modules in one line/)).toBeVisible();
    await expect(finding(page, /addresses 1 to 8 in the order of the bus/)).toBeVisible();
    await expect(finding(page, /closed loop by bus-a, one make/)).toBeVisible();
  });

  await test.step('7 kW on L1: 9.52 kVA carry it, and one unit alone does not', async () => {
    await goTo(page, 'Loads');
    await page.getByRole('button', { name: 'Add the first circuit' }).click();
    await typeIn(page, cell(page, 'New circuit', 0), 'Steriliser');
    await pickIn(page, cell(page, 'Steriliser', 1), 'L1');
    await typeIn(page, cell(page, 'New item', 0), 'Heating element');
    for (const [column, figure] of [
      [3, '1'],
      [4, '7000'],
      [5, '1'],
      [11, '1'],
    ] as const)
      await typeIn(page, cell(page, 'Heating element', column), figure);
    await pickIn(page, cell(page, 'Heating element', 6), 'steady');
    await goTo(page, 'Partitions');
    await page.getByRole('button', { name: 'Add grid side and backup output' }).click();
    await page.getByRole('button', { name: /^Steriliser,/ }).click();
    await page.getByRole('menuitem', { name: 'Backup output' }).click();
    await goTo(page, 'Stack');
    const load = page
      .getByRole('complementary', { name: 'Headroom' })
      .getByRole('region', { name: /^Continuous load/ });
    await page.getByRole('radio', { name: 'Island' }).click();
    await expect(load.getByRole('button', { name: /L1 carries 7 kVA of 9.52 kVA/ })).toBeVisible();
    // Not decided, losing a unit shows what remains; only where it must be survived is it a limit.
    await page.getByLabel('Must it be survived').selectOption('yes: every limit holds without it');
    await page.getByRole('radio', { name: /Lost: unit 1 \(L1\)/ }).click();
    await expect(
      load.getByRole('button', { name: /L1 is asked for 7 kVA .* can carry 5 kVA/ }),
    ).toBeVisible();
    await expect(page.getByText('lost', { exact: true })).toBeVisible();
    await page.getByRole('radio', { name: /Lost: unit 6 \(L3\)/ }).click();
    await expect(load.getByRole('button', { name: /L1 carries 7 kVA of 9.52 kVA/ })).toBeVisible();
  });
  await saved(page);
});

test('AC-coupled sets want somebody who directs them, and one without an outlet backs up nothing', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job').fill('Two small sets');
  await page.getByRole('button', { name: 'Start empty' }).click();
  await goTo(page, 'Site');
  await page.getByLabel('Supply', { exact: true }).selectOption('Single-phase');
  await goTo(page, 'Partitions');
  await page.getByRole('button', { name: 'Add grid side and backup output' }).click();
  await goTo(page, 'Stack');
  await page.getByRole('button', { name: 'Add a stack' }).click();
  await page.getByRole('button', { name: 'Add another stack' }).click();
  const choose = async (at: number, type: string): Promise<void> => {
    await page.getByLabel('Inverter type', { exact: true }).nth(at).selectOption(type);
    await page
      .getByLabel('Arrangement', { exact: true })
      .nth(at)
      .selectOption('AC-coupled storage, one set of several');
  };
  await choose(0, 'Sample AC-coupled storage inverter 3.6 kVA without outlet');
  await choose(1, 'Sample AC-coupled storage inverter 5 kVA with a small backup outlet');
  const site = page.getByRole('region', { name: 'Site controller' });
  await expect(site).toContainText(
    'Backup output is fed by it, but Sample AC-coupled storage inverter 3.6 kVA',
  );
  await expect(site).toContainText('no controller looks after it');
  await site.getByRole('button', { name: 'Add a site controller' }).click();
  await page.getByLabel('Site controller: type').selectOption('Sample site controller for six sets');
  await expect(site).toContainText('it needs a grid meter');
  for (const address of ['1', '1']) {
    await site.getByRole('button', { name: 'Add a meter' }).click();
    await site.getByLabel('Address', { exact: true }).last().fill(address);
    await site.getByLabel('Address', { exact: true }).last().press('Enter');
  }
  await site.getByLabel('Meter for', { exact: true }).last().selectOption('load');
  await expect(site).toContainText('address 1 is set on more than one meter');
  await site.getByLabel('Address', { exact: true }).last().fill('2');
  await site.getByLabel('Address', { exact: true }).last().press('Enter');
  await expect(site).toContainText('looks after 2 sets with the meters it needs');
});
