import { type Design, loadRows } from '@bastion/core';
import { downloadSheet } from '../../state/downloadSheet.ts';
import { noteExport } from '../../state/noteExport.ts';

const fileName = (design: Design, kind: string): string =>
  `${design.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-loads.${kind}`;

/** Writes the survey as a sheet that the import reads back. A cell that begins like a formula stays text. */
export async function exportLoads(design: Design, kind: 'csv' | 'xlsx'): Promise<void> {
  noteExport(kind);
  await downloadSheet(loadRows(design), kind, { file: fileName(design, kind), title: 'Loads' });
}
