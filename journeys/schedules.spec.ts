import { readFile } from 'node:fs/promises';
import { expect, type Page, test } from '@playwright/test';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { comeInAs, goTo, openJob, saved } from './workbench.ts';

const region = (page: Page, name: string) => page.getByRole('region', { name, exact: true });

async function download(page: Page, button: string): Promise<Buffer> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: button, exact: true }).click();
  return readFile(await (await waiting).path());
}

test('a cable that is too thick for its terminal is found, replaced by the size that fits, and the cut list follows', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  const conductors = region(page, 'Conductors');
  const row = conductors.getByRole('row').filter({ hasText: /unit 1, backup output to/ });
  await row.getByRole('button').click();
  const size = conductors.getByLabel('Size', { exact: true });
  await size.fill('35');
  await size.press('Enter');
  await expect(row).toContainText('35 mm²');
  await expect(row).toContainText(/terminal: unit 1, backup output takes .* to 10 mm²/);
  await page.getByRole('tab', { name: 'Cut list' }).click();
  await expect(region(page, 'Cut list')).toContainText('single core, 35 mm², brown');

  await page.getByRole('tab', { name: 'Conductors' }).click();
  await conductors
    .getByRole('row')
    .filter({ hasText: /unit 1, backup output to/ })
    .getByRole('button')
    .click();
  await conductors.getByRole('button', { name: /^Take / }).click();
  await expect(row).toContainText('within');
  await page.getByRole('tab', { name: 'Cut list' }).click();
  await expect(region(page, 'Cut list')).not.toContainText('35 mm²');
  // What is in the van is cut before anything is bought.
  await page.getByRole('button', { name: 'Add a piece' }).click();
  const piece = page.getByRole('group', { name: 'A piece in the van' }).last();
  await piece.getByLabel('Length', { exact: true }).fill('33');
  await piece.getByLabel('Length', { exact: true }).press('Enter');
  await expect(
    region(page, 'Cut list')
      .getByRole('row')
      .filter({ hasText: /2\.5 mm².*from the van.*33/ }),
  ).toHaveCount(1);
  // 18, 23, 12 and 15 m: 33 m take 18 and 15 of them, and 35 m fit one length of 50 m.
  await expect(
    region(page, 'What to buy').getByRole('row').filter({ hasText: 'cable of 3 cores, 2.5 mm²' }),
  ).toContainText(/4\s*68\s*33\s*1\s*50/);
  await saved(page);
});

test('devices get types that fit in one step, and what is read off a terminal stands in its row', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  for (const unit of ['unit 1', 'unit 2'])
    await page.getByLabel(`Type: output device of ${unit}`).selectOption('not known');
  await page.getByRole('tab', { name: 'Devices' }).click();
  const row = region(page, 'Devices').getByRole('row').filter({ hasText: 'output device of unit 2' });
  await expect(row).toContainText('its rating is not known');
  await page.getByRole('button', { name: /^Take the smallest type that fits for the 2 devices/ }).click();
  await expect(row).toContainText('within');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(row).toContainText('its rating is not known');
  await page.getByRole('button', { name: /^Do again/ }).click();

  // A long schedule shows its rows as soon as it is opened.
  await page.getByRole('tab', { name: 'Terminations' }).click();
  const terminations = region(page, 'Terminations');
  const bar = terminations.getByRole('row').filter({ hasText: 'Earthing bar by the door' });
  await page.getByLabel('Filter Terminations').fill('Earthing bar');
  await bar.getByRole('button').click();
  const torque = terminations.getByLabel('Torque', { exact: true });
  await torque.fill('9');
  await torque.press('Enter');
  await expect(bar).toContainText('9');
  const thickest = terminations.getByLabel('Thickest conductor, mm² or AWG');
  await thickest.fill('thick');
  await thickest.press('Enter');
  await expect(terminations.getByText('"thick" is not a size, as 16 or 6 AWG')).toBeVisible();
  await thickest.fill('6');
  await thickest.press('Enter');
  await expect(bar).toContainText('too thick: it takes 6 mm² at most');
  await saved(page);
});

test('schedules leave as sheets that a library reads back, and as a page to print', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await goTo(page, 'Wiring');
  await page.getByRole('tab', { name: 'Settings' }).click();
  const csv = Papa.parse<string[]>((await download(page, 'CSV')).toString('utf8').replace('\uFEFF', ''), {
    skipEmptyLines: true,
  }).data;
  expect(csv[0]).toEqual(['Device', 'Setting', 'Wanted', 'As it is set', 'Read by', 'Why']);
  expect(csv.find((cells) => cells[0] === 'unit 3' && cells[1] === 'Parallel mode')?.[2]).toBe('on, line L2');

  await page.getByRole('tab', { name: 'Labels' }).click();
  const book = new ExcelJS.Workbook();
  await book.xlsx.load(new Uint8Array(await download(page, 'XLSX')).buffer);
  const texts = book.worksheets[0]?.getColumn(3).values.map(String) ?? [];
  expect(texts.some((text) => text.startsWith('More than one source'))).toBe(true);

  await page.getByRole('tab', { name: 'Cut list' }).click();
  const cuts = new ExcelJS.Workbook();
  await cuts.xlsx.load(new Uint8Array(await download(page, 'XLSX')).buffer);
  expect(cuts.worksheets.map(({ name }) => name)).toEqual(['Cut list', 'What to buy']);
  // Two circuits of five cores, 17 and 22 m.
  const toBuy = cuts.worksheets[1];
  const at = toBuy?.getColumn(1).values.findIndex((value) => value === 'cable of 5 cores, 2.5 mm²') ?? -1;
  expect([2, 3].map((column) => toBuy?.getCell(at, column).value)).toEqual([2, 39]);
  await page.getByRole('tab', { name: 'Labels' }).click();

  await page.getByRole('link', { name: 'As a page' }).click();
  await expect(page.getByRole('heading', { name: 'Labels' })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Sheet 1 of \d+ with labels/ })).toBeVisible();
  await page.getByRole('link', { name: 'Terminations' }).click();
  await expect(region(page, 'Terminations')).toContainText('hydraulic press');
});

test('lengths are in feet where that is the practice, and either unit can be typed', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Wiring');
  const conductors = region(page, 'Conductors');
  await expect(conductors.getByRole('columnheader', { name: 'Length, ft' })).toBeVisible();
  const row = conductors.getByRole('row').nth(1);
  await row.getByRole('button').click();
  const length = conductors.getByLabel('Length of one conductor');
  await length.fill('40');
  await length.press('Enter');
  await expect(row).toContainText('40');
  // 10 m are 32.8084 ft.
  await length.fill('10 m');
  await length.press('Enter');
  await expect(row).toContainText('32.8');
  await length.press('Tab');
  await expect(length).toHaveValue('32.8084');
  // Leaving a field that nobody typed into changes nothing, whatever is rounded in it.
  const cell = region(page, 'Circuits')
    .getByLabel(/^Cable length of .*, ft$/)
    .first();
  await cell.fill('7 m');
  await cell.press('Tab');
  await expect(cell).toHaveValue('22.9659');
  await cell.focus();
  await cell.press('Tab');
  await saved(page);
  const id = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  expect(await (await page.request.get(`/api/jobs/${id}`)).text()).toMatch(/"lengthM":7[,}]/);
  await cell.fill('seven');
  await cell.press('Tab');
  await expect(region(page, 'Circuits').getByText('"seven" is not a number')).toBeVisible();
  await length.fill('ten');
  await length.press('Enter');
  await expect(conductors.getByText('"ten" is not a length, as 12 m or 40 ft')).toBeVisible();
});

test('of many circuits every cable is sized, a filter finds the last, and a link leads to the field of any', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  const design: unknown = JSON.parse(await readFile('examples/fernhollow.json', 'utf8'));
  if (typeof design !== 'object' || design === null) throw new Error('The example is no design.');
  const circuits = Array.from({ length: 150 }, (_, at) => ({
    id: `many-${at}`,
    name: `Row ${at}`,
    lines: ['L1'],
    partitionId: 'p-backup',
    cable: { lengthM: 12 },
    items: [
      {
        id: `many-item-${at}`,
        name: 'Lamp',
        quantity: 1,
        runningW: 20,
        powerFactor: 1,
        demandFactor: 1,
        startClass: 'steady',
      },
    ],
  }));
  const made = await page.request.post('/api/jobs/import', {
    data: { ...design, name: 'Many rows', circuits },
  });
  expect(made.status(), await made.text()).toBeLessThan(300);
  await page.reload();
  await openJob(page, 'Many rows');
  await goTo(page, 'Wiring');
  const conductors = region(page, 'Conductors');
  await expect(page.getByRole('button', { name: /Take the smallest size for the \d+ cables/ })).toBeVisible();
  // Those near what is seen are drawn, and all are counted.
  expect(await conductors.getByRole('row').count()).toBeLessThan(80);
  await page.getByLabel('Filter Conductors').fill('Row 149');
  const last = conductors.getByRole('row').filter({ hasText: 'Row 149' });
  // 20 W at 230 V.
  await expect(last).toContainText('0.1');
  await last.getByRole('button').click();
  await expect(conductors.getByText('Smallest that passes: 1.5 mm²')).toBeVisible();

  await page.goto(
    `${page.url().replace(/#.*$/, '')}#field=${encodeURIComponent('circuits/many-148/device/ratedA')}`,
  );
  await page.reload();
  await expect(page.getByLabel('Device rating of Row 148, A')).toBeFocused();
  await expect(page.getByLabel('Device rating of Row 147, A')).toHaveCount(0);
  await region(page, 'Circuits').getByRole('button', { name: 'Show all 150' }).click();
  await expect(page.getByLabel('Device rating of Row 147, A')).toHaveCount(1);
});

test('a sensor on the wrong side is found, on its form and in the schedule', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  await page.getByRole('button', { name: 'Sensor', exact: true }).click();
  const form = page.getByRole('group', { name: 'sensor', exact: true }).last();
  await form.getByLabel('Sensor', { exact: true }).selectOption('Sample clip-on sensor 100 A');
  await form.getByLabel('Looks').selectOption('at the backed-up board');
  await form.getByLabel('Arrow points').selectOption({ index: 2 });
  await form.getByLabel('Ratio in the settings').fill('100 A : 50 mA');
  await form.getByLabel('Ratio in the settings').press('Enter');
  await expect(form).toContainText('it belongs at the service');
  await page.getByRole('tab', { name: 'Sensors' }).click();
  const row = region(page, 'Meters and sensors').getByRole('row').filter({ hasText: 'sensor 100 A' });
  await expect(row).toContainText('over');
  await expect(row).toContainText('to the building; fitted to the grid or inverter');
});

test('what reports an outage is joined to the network, and its router is carried through', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Tern Rock field station');
  await goTo(page, 'Wiring');
  const network = page.locator('section').filter({ hasText: 'Network of the building' }).last();
  await network.getByLabel('Unit 1').selectOption('by cable');
  await expect(network).toContainText('Missing: the circuit that feeds the router');
  await network.getByLabel('Its router hangs on').selectOption('Drying room');
  await expect(network).toContainText('is dark while the grid is away, and nothing reports then');
  await network.getByLabel('Its router hangs on').selectOption('Instruments');
  await expect(network).toContainText('its router runs in an outage');
  await page.getByRole('tab', { name: 'Comms' }).click();
  const row = region(page, 'Comms links').getByRole('row').filter({ hasText: 'network of the building' });
  await expect(row).toContainText('straight network cable');
  await row.getByRole('button').click();
  const length = region(page, 'Comms links').getByLabel('Length', { exact: true });
  await length.fill('120');
  await length.press('Enter');
  await expect(region(page, 'Comms links')).toContainText('120 m long where 100 m is the most');
});

test('an approver overrides a value of the code tables, and it stands by name where it governs', async ({
  page,
}) => {
  await comeInAs(page, 'Ana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Wiring');
  const conductors = region(page, 'Conductors');
  const row = conductors.getByRole('row').filter({ hasText: 'Boat hoist' });
  await expect(row).not.toContainText('overridden by');
  await page.getByText('Code tables', { exact: true }).click();
  const button = page.getByRole('button', { name: 'Override the table, as Ana Prieto' });
  await page.getByRole('combobox', { name: 'Table' }).selectOption({ label: 'Factor of its neighbours' });
  await page.getByRole('textbox', { name: 'Conductors up to' }).fill('3');
  await page.getByRole('textbox', { name: 'Factor', exact: true }).fill('0.9');
  await button.click();
  await expect(
    page.getByRole('alert').filter({ hasText: 'A reason of a few words is needed.' }),
  ).toBeVisible();
  await page.getByRole('textbox', { name: 'Reason', exact: true }).fill('packed beside the welder');
  await button.click();
  await expect(row).toContainText('Grouping up to 3: overridden by Ana Prieto: packed beside the welder');
  await saved(page);
  await page.getByRole('button', { name: 'Back to the table: Grouping up to 3' }).click();
  await expect(row).not.toContainText('overridden by');
  await saved(page);
});

test('what a person decides of the settings stands in the sheet, and an hour that is none stays with its sentence', async ({
  page,
}) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Quillback boatyard workshop');
  await goTo(page, 'Wiring');
  await page.getByRole('tab', { name: 'Settings' }).click();
  const decided = page.getByRole('group', { name: 'Boatyard stack: what a person decides' });
  const sheet = region(page, 'Settings');
  await decided
    .getByRole('combobox', { name: 'Work mode on grid' })
    .selectOption({ label: 'by time windows' });
  await expect(decided).toContainText('Missing: windows by time');
  await decided.getByRole('button', { name: 'Add a window' }).click();
  await decided.getByRole('textbox', { name: 'From' }).fill('25:00');
  await decided.getByRole('textbox', { name: 'From' }).press('Enter');
  await expect(decided).toContainText('needs an hour of the day, as 07:30');
  await decided.getByRole('textbox', { name: 'From' }).fill('22:00');
  await decided.getByRole('textbox', { name: 'From' }).press('Enter');
  await expect(sheet.getByRole('row').filter({ hasText: 'Window 22:00 to 06:00' })).toContainText(
    'charges from the grid',
  );
  await expect(sheet.getByRole('row').filter({ hasText: 'storm forecast' })).toContainText('off');
  await decided.getByRole('textbox', { name: 'Discharge, each unit' }).fill('900');
  await decided.getByRole('textbox', { name: 'Discharge, each unit' }).press('Enter');
  await expect(decided).toContainText('discharge is set to 900 A, and the type takes');
  await saved(page);
});
