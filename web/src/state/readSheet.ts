import Papa from 'papaparse';

/** Larger files are no survey. */
const MOST_BYTES = 8_000_000;

export type Sheet =
  | {
      readonly ok: true;
      readonly rows: readonly (readonly string[])[];
      /** A workbook keeps figures as figures: a point parts their fractions, wherever it was written. */
      readonly decimal: '.' | undefined;
    }
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

/** Text of a file, whichever way the machine that wrote it has written signs: with a mark in front, in UTF-8, or in one byte each. */
function textOf(bytes: Uint8Array): string {
  const [first, second] = bytes;
  const marked =
    first === 0xff && second === 0xfe
      ? 'utf-16le'
      : first === 0xfe && second === 0xff
        ? 'utf-16be'
        : undefined;
  if (marked !== undefined) return new TextDecoder(marked).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Reads the first sheet of a CSV or XLSX file as rows of text, as they stand in the file. */
export async function readSheet(file: File): Promise<Sheet> {
  if (file.size > MOST_BYTES)
    return { ok: false, message: `${file.name} is larger than ${MOST_BYTES / 1e6} MB, so it was not read.` };
  const isNone = {
    ok: false,
    message: `${file.name} is neither a CSV nor an XLSX sheet that can be read.`,
  } as const;
  try {
    const bytes = await file.arrayBuffer();
    const isZip = new Uint8Array(bytes.slice(0, 2)).join() === '80,75';
    const rows = isZip ? await readWorkbook(bytes) : Papa.parse<string[]>(textOf(new Uint8Array(bytes))).data;
    // No text has such a sign in it: this is a picture, a program, or something else that only bears the name of a sheet.
    if (rows.some((row) => row.some((cell) => cell.includes('\u0000')))) return isNone;
    if (rows.length < 2) return { ok: false, message: `${file.name} has no rows below its headings.` };
    return { ok: true, rows, decimal: isZip ? '.' : undefined };
  } catch {
    return isNone;
  }
}
