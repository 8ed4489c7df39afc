import Papa from 'papaparse';

/** Larger files are no survey. */
const MOST_BYTES = 8_000_000;

export type Sheet =
  | { readonly ok: true; readonly rows: readonly (readonly string[])[] }
  | { readonly ok: false; readonly message: string };

async function readWorkbook(bytes: ArrayBuffer): Promise<string[][]> {
  const { Workbook } = await import('exceljs');
  const book = new Workbook();
  await book.xlsx.load(bytes);
  const [sheet] = book.worksheets;
  const rows: string[][] = [];
  sheet?.eachRow({ includeEmpty: true }, (row, number) => {
    const cells: string[] = [];
    for (let at = 1; at <= row.cellCount; at += 1) cells.push(row.getCell(at).text);
    rows[number - 1] = cells;
  });
  return Array.from(rows, (row: string[] | undefined) => row ?? []);
}

/** Reads the first sheet of a CSV or XLSX file as rows of text, as they stand in the file. */
export async function readSheet(file: File): Promise<Sheet> {
  if (file.size > MOST_BYTES)
    return { ok: false, message: `${file.name} is larger than ${MOST_BYTES / 1e6} MB, so it was not read.` };
  try {
    const bytes = await file.arrayBuffer();
    const isZip = new Uint8Array(bytes.slice(0, 2)).join() === '80,75';
    const rows = isZip
      ? await readWorkbook(bytes)
      : Papa.parse<string[]>(new TextDecoder().decode(bytes).replace(/^\uFEFF/, '')).data;
    if (rows.length < 2) return { ok: false, message: `${file.name} has no rows below its headings.` };
    return { ok: true, rows };
  } catch {
    return { ok: false, message: `${file.name} is neither a CSV nor an XLSX sheet that can be read.` };
  }
}
