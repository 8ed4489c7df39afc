import { type Design, formatPath, MAX_DOCUMENT_LENGTH, readDesignText, SAMPLE_TYPES } from '@bastion/core';

type FileRead =
  { readonly ok: true; readonly design: Design } | { readonly ok: false; readonly message: string };

/** Reads a design from a file that a person chose. Whatever is wrong is said with its place; nothing is taken over. */
export async function readDocumentFile(file: File): Promise<FileRead> {
  if (file.size > MAX_DOCUMENT_LENGTH * 4) {
    return {
      ok: false,
      message: `${file.name} has ${Math.round(file.size / 1e6)} MB, which is larger than a design can be. Nothing was changed.`,
    };
  }
  if (/\.(?:csv|tsv|txt|xlsx?|ods)$/i.test(file.name)) {
    return {
      ok: false,
      message: `${file.name} is a sheet, and this takes whole designs. Loads come in by “Sheet in” on the page of loads, readings of a meter below them. Nothing was changed.`,
    };
  }
  const read = readDesignText(await file.text(), SAMPLE_TYPES);
  if (read.ok) return { ok: true, design: read.value };
  const shown = read.problems.slice(0, 4).map((problem) => `${formatPath(problem.path)}: ${problem.message}`);
  const more = read.problems.length > 4 ? ` And ${read.problems.length - 4} more.` : '';
  return { ok: false, message: `${file.name} was not taken over. ${shown.join('. ')}.${more}` };
}

/** Hands bytes to the person as a file of a name. */
export function downloadBlob(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Hands a design to the person as a file. */
export function downloadDesign(design: Design): void {
  downloadBlob(
    new Blob([`${JSON.stringify(design, null, 2)}\n`], { type: 'application/json' }),
    `${design.name.replace(/[^\p{L}\p{N} _-]/gu, '').trim() || 'design'}.json`,
  );
}
