import type { Drawing, Shape } from '../diagram/shapes.ts';

/** A label to print: its kind decides its frame and its size. */
export interface PrintedLabel {
  readonly kind: 'warning' | 'isolation' | 'information' | 'mark';
  readonly text: string;
  readonly place: string;
  readonly count: number;
}

/** A4 at 96 dots an inch. */
const PAGE = { widthPx: 794, heightPx: 1123 } as const;
const MARGIN = 38;
const GAP = 8;

interface Size {
  readonly columns: number;
  readonly heightPx: number;
  readonly sizePx: number;
  /** Room that the sign beside the text takes. */
  readonly signPx: number;
}

/** Marks of conductors are small and many; what somebody has to read before opening a door is not. */
const SIZES: Readonly<Record<PrintedLabel['kind'], Size>> = {
  warning: { columns: 2, heightPx: 122, sizePx: 14, signPx: 62 },
  isolation: { columns: 2, heightPx: 84, sizePx: 15, signPx: 20 },
  information: { columns: 2, heightPx: 84, sizePx: 13, signPx: 16 },
  mark: { columns: 3, heightPx: 54, sizePx: 10.5, signPx: 10 },
};

/** Mean width of a letter over its height, of a wide face: who prints it may have another one. */
const LETTER = { bold: 0.68, plain: 0.6 } as const;

/** Words in lines of at most so many letters. */
function wrapped(text: string, letters: number): string[] {
  const lines: string[] = [''];
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1) ?? '';
    if (last === '') lines[lines.length - 1] = word;
    else if (last.length + word.length + 1 <= letters) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

type Point = readonly [number, number];

const closed = (points: readonly Point[], widthPx: number): Shape => ({
  kind: 'line',
  ink: 'symbol',
  widthPx,
  points: [...points, ...points.slice(0, 1)],
});

const box = (x: number, y: number, width: number, height: number, widthPx: number): Shape =>
  closed(
    [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ],
    widthPx,
  );

/** Warnings stand in a thick frame beside a triangle, isolation points in a double frame, the rest in a thin one. */
function frameOf(kind: PrintedLabel['kind'], x: number, y: number, width: number, height: number): Shape[] {
  if (kind === 'isolation')
    return [box(x, y, width, height, 1.5), box(x + 4, y + 4, width - 8, height - 8, 1.5)];
  if (kind !== 'warning') return [box(x, y, width, height, kind === 'mark' ? 0.7 : 1.5)];
  const top: Point = [x + 36, y + 24];
  return [
    box(x, y, width, height, 3),
    closed([top, [x + 60, y + 66], [x + 12, y + 66]], 3),
    { kind: 'text', ink: 'word', x: x + 36, y: y + 60, text: '!', sizePx: 26, anchor: 'middle', bold: true },
  ];
}

function cardOf({ kind, text, place }: PrintedLabel, x: number, y: number, width: number): Shape[] {
  const { heightPx, sizePx, signPx } = SIZES[kind];
  const lines = wrapped(
    text,
    Math.floor((width - signPx - 18) / (sizePx * (kind === 'mark' ? LETTER.plain : LETTER.bold))),
  );
  const step = sizePx * 1.25;
  return [
    ...frameOf(kind, x, y, width, heightPx),
    ...lines.map((line, at): Shape => ({
      kind: 'text',
      ink: 'word',
      x: x + signPx + 6,
      y: y + 10 + sizePx + at * step,
      text: line,
      sizePx,
      anchor: 'start',
      bold: kind !== 'mark',
    })),
    ...(kind === 'mark'
      ? []
      : [
          {
            kind: 'text' as const,
            ink: 'quiet' as const,
            x: x + width - 10,
            y: y + heightPx - 9,
            text: place,
            sizePx: 9,
            anchor: 'end' as const,
          },
        ]),
  ];
}

/** Labels as pages to print: each as often as it is wanted, in rows of one kind. */
export function labelSheet(labels: readonly PrintedLabel[]): Drawing[] {
  const pages: Shape[][] = [[]];
  let y = MARGIN;
  let column = 0;
  let rowKind: PrintedLabel['kind'] | undefined;
  const endRow = (): void => {
    if (rowKind !== undefined && column > 0) y += SIZES[rowKind].heightPx + GAP;
    column = 0;
  };
  for (const label of labels.flatMap((one) => Array.from({ length: one.count }, () => one))) {
    const { columns, heightPx } = SIZES[label.kind];
    if (label.kind !== rowKind || column === columns) endRow();
    rowKind = label.kind;
    if (column === 0 && y + heightPx > PAGE.heightPx - MARGIN) {
      pages.push([]);
      y = MARGIN;
    }
    const width = (PAGE.widthPx - 2 * MARGIN - (columns - 1) * GAP) / columns;
    pages.at(-1)?.push(...cardOf(label, MARGIN + column * (width + GAP), y, width));
    column += 1;
  }
  return pages.filter((shapes) => shapes.length > 0).map((shapes) => ({ ...PAGE, shapes }));
}
