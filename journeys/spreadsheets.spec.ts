import { expect, type Page, test } from '@playwright/test';
import exceljs from 'exceljs';
import { comeInAs, goTo } from './workbench.ts';

async function surveyOf(page: Page, name: string): Promise<void> {
  await comeInAs(page, 'Dana');
  await page.getByLabel('Name of a new job', { exact: true }).fill(name);
  await page.getByLabel('Supply and sizes').selectOption('230/400 V 50 Hz, three-phase, metric sizes');
  await page.getByRole('button', { name: 'Start empty' }).click();
  await goTo(page, 'Loads');
}

/** Text as some spreadsheets write it: two bytes a sign, with a mark in front. */
const inTwoBytes = (text: string): Buffer => Buffer.from(`\ufeff${text}`, 'utf16le');
const inOneByte = (text: string): Buffer => Buffer.from(text, 'latin1');

async function book(rows: readonly (readonly unknown[])[]): Promise<Buffer> {
  const made = new exceljs.Workbook();
  const sheet = made.addWorksheet('Lastliste');
  for (const row of rows) sheet.addRow([...row]);
  return Buffer.from(await made.xlsx.writeBuffer());
}

interface Sheet {
  readonly name: string;
  readonly file: string;
  readonly bytes: () => Buffer | Promise<Buffer>;
  readonly says: readonly string[];
  /** Rows of the table afterwards: a name and what stands in its row. */
  readonly rows: readonly (readonly [string, string])[];
}

const SHEETS: readonly Sheet[] = [
  {
    name: 'semicolons, decimal commas, two lines of title, and kilowatts',
    file: 'office.csv',
    bytes: () =>
      Buffer.from(
        'Load survey of the old mill;;;;\nas of Monday;;;;\nCircuit;Phase;Load;Qty;P [kW];Start\nPump room;L1;Sump pump;1;0,75;compressor\nStairs;L2;Light panel;6;0,036;electronic\n',
      ),
    says: ['2 rows will change the design', 'No row is left out'],
    // 0.75 kW and 0.036 kW, in watts.
    rows: [
      ['Sump pump', '750'],
      ['Light panel', '36'],
    ],
  },
  {
    name: 'tabs in two bytes a sign',
    file: 'unicode.txt',
    bytes: () => inTwoBytes('Circuit\tLine\tLoad\tWatts each\r\nKühlraum\tL3\tKühlschrank groß\t180\r\n'),
    says: ['1 row will change the design'],
    rows: [['Kühlschrank groß', '180']],
  },
  {
    name: 'one byte a sign, as an older machine writes it',
    file: 'old.csv',
    bytes: () => inOneByte('Circuit,Line,Load,Watts\nBäckerei,L1,Rührwerk,900\n'),
    says: ['1 row will change the design'],
    rows: [['Rührwerk', '900']],
  },
  {
    name: 'a workbook with a title and formulas',
    file: 'survey.xlsx',
    bytes: () =>
      book([
        ['Verbraucher', null, null, null],
        ['Circuit', 'Phase', 'Load', 'W'],
        ['Workshop', 'L1', 'Band saw', { formula: '2*600', result: 1200 }],
        ['Workshop', 'L1', 'Dust extraction', 550],
      ]),
    says: ['2 rows will change the design'],
    rows: [
      ['Band saw', '1200'],
      ['Dust extraction', '550'],
    ],
  },
  {
    name: 'a column of energy where power is meant',
    file: 'energy.csv',
    bytes: () => Buffer.from('Circuit,Line,Load,kWh\nHall,L1,Heater,12\n'),
    says: ['kWh'],
    rows: [],
  },
];

test('a mixed bag of spreadsheets comes in, each as it is', async ({ page }) => {
  await surveyOf(page, 'Mixed bag');
  for (const { name, file, bytes, says, rows } of SHEETS)
    await test.step(name, async () => {
      const bring = page.getByRole('button', { name: /^(Bring a CSV or XLSX sheet|Sheet in)/ });
      await bring.first().click();
      const dialog = page.getByRole('dialog', { name: 'Loads from a sheet' });
      await dialog
        .getByLabel('Sheet of loads')
        .setInputFiles({ name: file, mimeType: 'application/octet-stream', buffer: await bytes() });
      for (const words of says) await expect(dialog).toContainText(words);
      if (rows.length === 0) {
        await page.keyboard.press('Escape');
        return;
      }
      await dialog.getByRole('button', { name: /^Take over/ }).click();
      await expect(dialog).toHaveCount(0);
      for (const [row, figure] of rows)
        await expect(
          page.getByRole('row').filter({ has: page.getByRole('rowheader', { name: row, exact: true }) }),
        ).toContainText(figure);
    });

  await test.step('what is no sheet is told, and changes nothing', async () => {
    const before = await page.getByText(/circuits, \d+ items/).textContent();
    await page.getByRole('button', { name: /^Sheet in/ }).click();
    const dialog = page.getByRole('dialog', { name: 'Loads from a sheet' });
    for (const [name, buffer] of [
      ['picture.xlsx', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 2, 10, 4])],
      ['empty.csv', Buffer.alloc(0)],
    ] as const) {
      await dialog
        .getByLabel('Sheet of loads')
        .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
      await expect(dialog.getByRole('alert').or(dialog.getByRole('status'))).toContainText(name);
    }
    await page.keyboard.press('Escape');
    await expect(page.getByText(before ?? '')).toBeVisible();
  });
});
