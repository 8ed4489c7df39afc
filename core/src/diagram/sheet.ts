import type { Drawing, Shape } from './shapes.ts';
import { SOURCE_WORDS } from './draw.ts';

/** What the title block of a drawing says. */
export interface TitleBlock {
  readonly job: string;
  readonly revision: string;
  readonly mode: string;
  readonly date: string;
  readonly name: string;
}

const MARGIN = 24;
const BLOCK = { widthPx: 420, rowPx: 18 };

/** A drawing on a sheet with a frame and its title block at the lower right. */
export function onSheet({ widthPx, heightPx, shapes }: Drawing, title: TitleBlock): Drawing {
  const rows: [string, string][] = [
    ['Job', title.job],
    ['Drawing', 'Single line, generated from the design'],
    ['Operating mode', title.mode],
    ['Revision', title.revision],
    ['Date', title.date],
    ['Name', title.name],
    ['Live parts', SOURCE_WORDS],
    ['', 'Within the limits entered. Local codes, manuals and the licensed person go first.'],
  ];
  const blockPx = rows.length * BLOCK.rowPx + 6;
  const width = Math.max(widthPx, BLOCK.widthPx) + 2 * MARGIN;
  const height = heightPx + blockPx + 3 * MARGIN;
  const left = width - MARGIN - BLOCK.widthPx;
  const top = height - MARGIN - blockPx;
  const frame = (x: number, y: number, w: number, h: number): Shape => ({
    kind: 'line',
    points: [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
      [x, y],
    ],
    widthPx: 1,
    ink: 'symbol',
  });
  const words = rows.flatMap(([label, text], at): Shape[] => {
    const y = top + (at + 1) * BLOCK.rowPx - 3;
    return [
      { kind: 'text', x: left + 6, y, text: label, sizePx: 10, anchor: 'start', ink: 'quiet' },
      {
        kind: 'text',
        x: left + (label === '' ? 6 : 104),
        y,
        text,
        sizePx: label === '' ? 9 : 11,
        anchor: 'start',
        ink: 'word',
      },
    ];
  });
  return {
    widthPx: width,
    heightPx: height,
    shapes: [
      ...shapes.map((shape) => moved(shape, MARGIN, MARGIN)),
      frame(8, 8, width - 16, height - 16),
      frame(left, top, BLOCK.widthPx, blockPx),
      ...words,
    ],
  };
}

const moved = (shape: Shape, x: number, y: number): Shape =>
  shape.kind === 'line'
    ? { ...shape, points: shape.points.map(([px, py]) => [px + x, py + y] as const) }
    : { ...shape, x: shape.x + x, y: shape.y + y };
