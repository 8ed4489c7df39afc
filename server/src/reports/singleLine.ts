import {
  type Analysis,
  diagramOf,
  drawDiagram,
  drawingPage,
  layoutQuestion,
  modesOf,
  onSheet,
  nudged,
  readLayout,
  svgOf,
} from '@bastion/core';
import elk from 'elkjs/lib/elk.bundled.js';
import type { TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { RefusalError } from '../errors.ts';

/** The single line of a design as one mode has it, whole on an A3 sheet with its title block. */
export async function singleLineReport(
  { design, installation }: Analysis,
  modeId: string | undefined,
  made: { readonly revision: number; readonly madeAt: Date; readonly name: string },
): Promise<TDocumentDefinitions> {
  const modes = modesOf(installation);
  const mode = modes.find(({ id }) => id === modeId) ?? modes[0];
  if (!installation.network.known || mode === undefined) throw new RefusalError('NOTHING_TO_DRAW');
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
  const sheet = onSheet(drawing, {
    job: design.name,
    revision: String(made.revision),
    mode: mode.label,
    date: made.madeAt.toISOString().slice(0, 10),
    name: made.name,
  });
  return drawingPage(svgOf(sheet, 'Roboto'), sheet, `${design.name}: single line`);
}
