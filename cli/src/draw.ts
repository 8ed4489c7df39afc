import { writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, extname, join } from 'node:path';
import {
  compile,
  type Design,
  diagramOf,
  drawDiagram,
  type Drawing,
  drawingPage,
  layoutQuestion,
  modesOf,
  onSheet,
  nudged,
  readLayout,
  SAMPLE_TYPES,
  svgOf,
} from '@bastion/core';
import { dxfOf } from '@bastion/core/dxf';
import elk from 'elkjs/lib/elk.bundled.js';
import pdfmake from 'pdfmake';

export type DrawOutcome = { readonly ok: true } | { readonly ok: false; readonly message: string };

const failed = (message: string): DrawOutcome => ({ ok: false, message });

/** Lays the single line of a design out and puts it on a sheet, as a mode has it. */
async function sheetOf(design: Design, modeId: string | undefined): Promise<Drawing | string> {
  const installation = compile(design, SAMPLE_TYPES);
  if (!installation.network.known) return 'Not known yet: the supply of the site.';
  const modes = modesOf(installation);
  const mode = modeId === undefined ? modes[0] : modes.find((one) => one.id === modeId);
  if (mode === undefined)
    return `--mode ${String(modeId)}: this design has the modes ${modes.map((one) => one.id).join(', ')}.`;
  const network = installation.network.value;
  const diagram = diagramOf(installation, network);
  const question = layoutQuestion(diagram);
  const answer = await new elk.default().layout({
    ...question,
    edges: [...question.edges],
    children: [...question.children],
  });
  const layout = nudged(readLayout(answer), diagram, installation.wiring?.nudges);
  const drawing = drawDiagram(installation, network, diagram, layout, { mode });
  return onSheet(drawing, { job: design.name, revision: 'file', mode: mode.label, date: '', name: '' });
}

function pdfOf(sheet: Drawing, title: string): Promise<Buffer> {
  const folder = join(
    dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')),
    'fonts',
    'Roboto',
  );
  // A drawing takes nothing from outside but its fonts.
  pdfmake.setUrlAccessPolicy(() => false);
  pdfmake.setLocalAccessPolicy((path) => path.startsWith(folder));
  const font = (name: string): string => join(folder, `Roboto-${name}.ttf`);
  pdfmake.setFonts({
    Roboto: {
      normal: font('Regular'),
      bold: font('Medium'),
      italics: font('Italic'),
      bolditalics: font('MediumItalic'),
    },
  });
  return pdfmake.createPdf(drawingPage(svgOf(sheet, 'Roboto'), sheet, title)).getBuffer();
}

/** Writes the single line of a design to a file, by its ending: SVG, DXF or PDF. */
export async function drawTo(design: Design, file: string, modeId: string | undefined): Promise<DrawOutcome> {
  const kind = extname(file).toLowerCase();
  if (kind !== '.svg' && kind !== '.dxf' && kind !== '.pdf')
    return failed(`--out ${file}: a file ending in .svg, .dxf or .pdf is needed.`);
  const sheet = await sheetOf(design, modeId);
  if (typeof sheet === 'string') return failed(sheet);
  const bytes =
    kind === '.svg'
      ? svgOf(sheet)
      : kind === '.dxf'
        ? dxfOf(sheet)
        : await pdfOf(sheet, `${design.name}: single line`);
  try {
    writeFileSync(file, bytes);
  } catch (error) {
    return failed(`${file}: ${error instanceof Error ? error.message : 'cannot be written'}`);
  }
  return { ok: true };
}
