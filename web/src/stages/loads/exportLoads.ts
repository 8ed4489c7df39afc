import { type Design, loadRows } from '@bastion/core';
import Papa from 'papaparse';
import { downloadBlob } from '../../state/documentFile.ts';
import { noteExport } from '../../state/noteExport.ts';

const fileName = (design: Design, kind: string): string =>
  `${design.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-loads.${kind}`;

const isFigure = (text: string): boolean => /^-?\d+(\.\d+)?$/.test(text);

/** Writes the survey as a sheet that the import reads back. A cell that begins like a formula stays text. */
export async function exportLoads(design: Design, kind: 'csv' | 'xlsx'): Promise<void> {
  const rows = loadRows(design);
  noteExport(kind);
  if (kind === 'csv') {
    const text = Papa.unparse(rows, { escapeFormulae: true });
    downloadBlob(new Blob(['\uFEFF', text], { type: 'text/csv' }), fileName(design, kind));
    return;
  }
  const { Workbook } = await import('exceljs');
  const book = new Workbook();
  const sheet = book.addWorksheet('Loads', { views: [{ state: 'frozen', ySplit: 1 }] });
  for (const row of rows) sheet.addRow(row.map((cell) => (isFigure(cell) ? Number(cell) : cell)));
  sheet.getRow(1).font = { bold: true };
  const bytes = await book.xlsx.writeBuffer();
  downloadBlob(
    new Blob([bytes], { type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' }),
    fileName(design, kind),
  );
}
