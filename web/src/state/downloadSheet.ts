import Papa from 'papaparse';
import { downloadBlob } from './documentFile.ts';

const isFigure = (text: string): boolean => /^-?\d+(\.\d+)?$/.test(text);

/** Writes rows, headings first, as a sheet. A cell that begins like a formula stays text. */
export async function downloadSheet(
  rows: readonly (readonly string[])[],
  kind: 'csv' | 'xlsx',
  { file, title }: { readonly file: string; readonly title: string },
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
  const sheet = book.addWorksheet(title, { views: [{ state: 'frozen', ySplit: 1 }] });
  for (const row of rows) sheet.addRow(row.map((cell) => (isFigure(cell) ? Number(cell) : cell)));
  sheet.getRow(1).font = { bold: true };
  const bytes = await book.xlsx.writeBuffer();
  downloadBlob(
    new Blob([bytes], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }),
    file,
  );
}
