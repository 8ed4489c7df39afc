import { expect, type Page, test } from '@playwright/test';
import exceljs from 'exceljs';
import { cell, comeInAs, goTo, openJob, paste, saved } from './workbench.ts';

const COLUMNS = ['Circuit', 'Phase', 'Load', 'Qty', 'Watts', 'PF', 'Start class', 'Demand', 'Priority'];

async function newJob(page: Page, name: string): Promise<void> {
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job').fill(name);
  await page.getByRole('button', { name: 'Start empty' }).click();
  await page.getByLabel('Supply', { exact: true }).selectOption('three-phase');
  await page.getByLabel('Voltage, line to neutral', { exact: true }).fill('230');
  await page.keyboard.press('Enter');
  await goTo(page, 'Loads');
}

/** A sheet as an office sends it: 12 good rows and six that cannot be used, each for a reason of its own. */
async function sheetWithSixBadCells(): Promise<Buffer> {
  const book = new exceljs.Workbook();
  const sheet = book.addWorksheet('Survey');
  sheet.addRow(COLUMNS);
  for (let n = 1; n <= 12; n += 1)
    sheet.addRow([
      `Way ${n}`,
      `L${(n % 3) + 1}`,
      `Panel heater ${n}`,
      1,
      900 + n,
      1,
      'steady',
      0.5,
      'should',
    ]);
  sheet.addRow(['Way 13', 'L7', 'Heater', 1, 900, 1, 'steady', 0.5, 'should']);
  sheet.addRow(['Way 14', 'L1', 'Heater', 'two', 900, 1, 'steady', 0.5, 'should']);
  sheet.addRow(['Way 15', 'L1', 'Heater', 1, -900, 1, 'steady', 0.5, 'should']);
  sheet.addRow(['Way 16', 'L1', 'Heater', 1, 900, 1.3, 'steady', 0.5, 'should']);
  sheet.addRow(['Way 17', 'L1', 'Heater', 1, 900, 1, 'rocket', 0.5, 'should']);
  sheet.addRow(['Way 18', 'L1', 'Heater', 1, 900, 1, 'steady', 5, 'should']);
  return Buffer.from(await book.xlsx.writeBuffer());
}

/** A year of quarter hours in local time of Berlin: 35,040 rows, spring skips four of them and autumn repeats four. */
function yearOfReadings(): string {
  const rows = ['Time,Energy kWh'];
  const start = Date.UTC(2024, 11, 31, 23);
  for (let n = 0; n < 35_040; n += 1) {
    const utc = start + n * 900_000;
    const isSummer = utc >= Date.UTC(2025, 2, 30, 1) && utc < Date.UTC(2025, 9, 26, 1);
    const local = new Date(utc + (isSummer ? 7_200_000 : 3_600_000));
    const hour = local.getUTCHours();
    const kilowatts = n === 20_000 ? 14.4 : hour >= 8 && hour < 18 ? 6 : 1.2;
    rows.push(`${local.toISOString().slice(0, 16).replace('T', ' ')},${(kilowatts / 4).toFixed(3)}`);
  }
  return rows.join('\n');
}

test('a survey of forty circuits is pasted from a spreadsheet, worked on like one, and goes out again', async ({
  page,
}) => {
  await newJob(page, 'Pasted survey');
  await page.getByRole('button', { name: 'Add the first circuit' }).click();
  const block = Array.from(
    { length: 40 },
    (_, n) => `Room ${n + 1}\tL${(n % 3) + 1}\t\t2\t${100 + n}\t0.9\telectronic`,
  ).join('\n');
  await paste(page, page.getByRole('textbox', { name: 'New circuit' }), block);
  await expect(page.getByText('40 circuits added.')).toBeVisible();
  await expect(page.getByText('41 circuits, 41 items')).toBeVisible();

  await test.step('a range is filled down, copied, emptied and brought back', async () => {
    const item = (name: string, column: number) =>
      page
        .getByRole('row')
        .filter({ has: page.getByRole('rowheader', { name, exact: true }) })
        .last()
        .locator('td')
        .nth(column);
    await item('Room 1', 11).click();
    await page.keyboard.press('8');
    await page.keyboard.press('Enter');
    await item('Room 1', 11).click();
    await item('Room 4', 11).click({ modifiers: ['Shift'] });
    await page.keyboard.press('Control+d');
    for (const room of ['Room 2', 'Room 3', 'Room 4']) await expect(item(room, 11)).toHaveText('8');
    await item('Room 1', 3).click();
    await item('Room 1', 5).click({ modifiers: ['Shift'] });
    const copied = await page.evaluate(() => {
      const clipboardData = new DataTransfer();
      document.activeElement?.dispatchEvent(
        new ClipboardEvent('copy', { clipboardData, bubbles: true, cancelable: true }),
      );
      return clipboardData.getData('text/plain');
    });
    expect(copied).toBe('2\t100\t0.9');
    await page.keyboard.press('Delete');
    await expect(item('Room 1', 4)).toContainText('not known');
    await page.keyboard.press('Control+z');
    await expect(item('Room 1', 4)).toHaveText('100');
  });

  await test.step('it is sorted, filtered, and columns are chosen', async () => {
    await page
      .getByRole('columnheader', { name: /^Expected/ })
      .getByRole('button')
      .click();
    await expect(page.getByRole('rowheader').first()).toHaveText('Room 40');
    await page.getByLabel('Show only names with').fill('Room 17');
    await expect(page.getByRole('rowheader')).toHaveCount(2);
    await page.getByRole('button', { name: 'Show all, in board order' }).click();
    await page.getByRole('button', { name: 'Columns' }).click();
    await page.getByRole('menuitemcheckbox', { name: /^LRA/ }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('columnheader', { name: /LRA/ })).toBeVisible();
  });

  await test.step('an own entry is kept in the library of the firm and comes from there', async () => {
    await page.getByRole('rowheader', { name: 'Room 2', exact: true }).last().click();
    await page.getByRole('button', { name: 'Library' }).click();
    const library = page.getByRole('dialog', { name: 'Item library' });
    await library.getByRole('button', { name: 'Keep “Room 2” in the library' }).click();
    await expect(library.getByText('kept by Dana Wells')).toBeVisible();
    await library.getByLabel('Search the library').fill('borehole');
    await library.getByRole('button', { name: 'As a circuit: Borehole pump, three-phase' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByText('42 circuits, 42 items')).toBeVisible();
  });

  await test.step('a clamp reading is logged, and stands beside the estimate', async () => {
    await page.getByRole('rowheader', { name: 'Room 3', exact: true }).first().click();
    const clamped = page.getByRole('region', { name: 'Clamp readings of Room 3' });
    // 2 · 102 W / 0.9 / 230 V = 0.986 A
    await expect(clamped).toContainText('L3 0.986 A');
    await clamped.getByLabel('Measured current, A').fill('1,4');
    await clamped.getByRole('button', { name: 'Log the reading' }).click();
    await expect(clamped).toContainText('Dana Wells');
    await expect(cell(page, 'Room 3', 15).first()).toHaveText('L3 1.4');
    await saved(page);
  });

  await test.step('the sheet goes out as CSV and XLSX', async () => {
    for (const kind of ['CSV', 'XLSX']) {
      await page.getByRole('button', { name: 'Sheet out' }).click();
      const download = page.waitForEvent('download');
      await page.getByRole('menuitem', { name: `As ${kind}` }).click();
      expect((await download).suggestedFilename()).toBe(`pasted-survey-loads.${kind.toLowerCase()}`);
    }
  });
});

test('an XLSX with six bad cells is mapped, and every row is taken over with what could be read', async ({
  page,
}) => {
  await newJob(page, 'Sheet job');
  await page.getByRole('button', { name: 'Bring a CSV or XLSX sheet' }).click();
  const dialog = page.getByRole('dialog', { name: 'Loads from a sheet' });
  await dialog.getByLabel('Sheet of loads').setInputFiles({
    name: 'survey.xlsx',
    mimeType: 'application/octet-stream',
    buffer: await sheetWithSixBadCells(),
  });
  await expect(dialog.getByLabel(/^Watts/)).toHaveValue('runningW');
  const left = dialog.getByRole('region', { name: 'Rows and cells left out' });
  await expect(left).toContainText('No row is left out, 6 cells could not be read: not known in new rows');
  for (const words of [
    'Row 14 Lines: "L7" names a line that this supply does not have',
    'Row 15 Quantity: "two" is not a number',
    'Row 16 Running W: -900 is outside what is possible',
    'Row 17 Power factor: 1.3 is outside what is possible',
    'Row 18 Start class: "rocket" is not one of',
    'Row 19 Demand: 5 is outside what is possible',
  ])
    await expect(left).toContainText(words);
  await dialog.getByLabel(/^Priority/).selectOption('');
  await dialog.getByRole('button', { name: 'Take over 18 rows' }).click();
  await expect(page.getByText(/^18 rows of survey\.xlsx taken over/)).toBeVisible();
  await expect(page.getByText('18 circuits, 18 items')).toBeVisible();
  // A quantity that could not be read is not one.
  const heaters = page
    .getByRole('row')
    .filter({ has: page.getByRole('rowheader', { name: 'Heater', exact: true }) });
  await expect(heaters.nth(1)).toContainText(/^Heater\s*not known\s*—?\s*900/);
  await expect(cell(page, 'Panel heater 1', 12)).toContainText('not known');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('No circuits yet')).toBeVisible();
});

test('a year of an interval meter comes in, and the limits use what was measured', async ({ page }) => {
  await comeInAs(page, 'Dana');
  await openJob(page, 'Fernhollow veterinary practice');
  await goTo(page, 'Loads');
  await page.getByRole('button', { name: 'Meter readings in' }).click();
  const dialog = page.getByRole('dialog', { name: 'Readings of an interval meter' });
  await dialog.getByLabel('Meter file').setInputFiles({
    name: 'meter-2025.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(yearOfReadings()),
  });
  await dialog.getByLabel('Time zone of the meter').fill('Europe/Berlin');
  await expect(dialog).toContainText('35040 readings of 15 minutes');
  await expect(dialog).toContainText('Peak 14.4 kW');
  await expect(dialog).toContainText('in the hour that autumn repeats');
  await expect(dialog).not.toContainText('missing');
  await dialog.getByRole('button', { name: 'Take the readings over' }).click();
  // 14.4 kW · 1.3 crest
  await expect(
    page.getByText(/Meter 1 of the whole building: peak 14.4 kW.*limits use 18.7 kW/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /Mean day of each season: winter up to 6 kW/ })).toBeVisible();
  await saved(page);
  await goTo(page, 'Limits');
  await page
    .getByRole('button', { name: /Service current, On grid/ })
    .first()
    .click();
  await expect(page.getByRole('dialog')).toContainText('measured');
  await page.keyboard.press('Escape');
  await goTo(page, 'Loads');
  await page.getByRole('button', { name: 'Remove Meter 1' }).click();
  await saved(page);
});
