import Papa from 'papaparse';
import { downloadBlob } from './documentFile.ts';

const isFigure = (text: string): boolean => /^-?\d+(\.\d+)?$/.test(text);

type Rows = readonly (readonly string[])[];

/** Rows under a title, headings first. */
export interface Sheet {
  readonly title: string;
  readonly rows: Rows;
}

/** Writes rows, headings first, as a sheet; a workbook takes further ones, for which CSV has no place. A cell that begins like a formula stays text. */
export async function downloadSheet(
  rows: Rows,
  kind: 'csv' | 'xlsx',
  {
    file,
    title,
    further = [],
  }: { readonly file: string; readonly title: string; readonly further?: readonly Sheet[] },
): Promise<void> {
  if (kind === 'csv') {
    const text = Papa.unparse(
      rows.map((row) => [...row]),
      { escapeFormulae: true },
    );
    downloadBlob(new Blob(['\uFEFF', text], { type: 'text/csv' }), file);
    return;
  }
  const { Workbook } = await import('exceljs');
  const book = new Workbook();
  for (const one of [{ title, rows }, ...further]) {
    const sheet = book.addWorksheet(one.title, { views: [{ state: 'frozen', ySplit: 1 }] });
    for (const row of one.rows) sheet.addRow(row.map((cell) => (isFigure(cell) ? Number(cell) : cell)));
    sheet.getRow(1).font = { bold: true };
  }
  const bytes = await book.xlsx.writeBuffer();
  downloadBlob(
    new Blob([bytes], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }),
    file,
  );
}
