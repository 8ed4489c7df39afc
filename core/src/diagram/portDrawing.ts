import type { Drawing, Shape } from './shapes.ts';

/** One conductor as it lands in a terminal, in words and figures of the termination schedule. */
export interface PortEnd {
  /** What the terminal is called: L1, N, PE, DC+. */
  readonly terminal: string;
  readonly size: string | undefined;
  readonly colour: string | undefined;
  readonly end: string | undefined;
  readonly stripMm: number | undefined;
  readonly isDone: boolean;
  /** It does not fit, or shares where it may not. */
  readonly isWrong: boolean;
  /** Its place in the order in which the type wants them landed. */
  readonly order: number | undefined;
}

const STEP_PX = 84;
const EDGE_PX = 46;
const TOP_PX = 30;
const BOX_PX = 36;
const BARE_PX = 30;
const COVERED_PX = 46;
/** Drawn width of a conductor: it grows with its diameter, between a hair and a thumb. */
const widthOf = (size: string | undefined): number => {
  const figure = Number.parseFloat(size ?? '');
  return size === undefined || Number.isNaN(figure)
    ? 5
    : size.includes('AWG')
      ? 7
      : Math.min(14, 3 + Math.sqrt(figure));
};

/** What is made onto the end, between the terminal and the insulation. */
function endShapes({ end, isWrong }: PortEnd, x: number, y: number): Shape[] {
  const ink = isWrong ? 'over' : 'symbol';
  const box = (half: number, from: number, to: number): Shape => ({
    kind: 'line',
    ink,
    widthPx: 1.5,
    points: [
      [x - half, from],
      [x + half, from],
      [x + half, to],
      [x - half, to],
      [x - half, from],
    ],
  });
  const kind = end?.split(' ')[0];
  switch (kind) {
    case 'ferrule':
      return [box(4, y - BARE_PX, y - 7), box(6, y - 7, y)];
    case 'ring':
      return [{ kind: 'circle', ink, x, y: y - BARE_PX + 2, r: 9, widthPx: 2 }, box(5, y - 14, y)];
    case 'fork':
      return [
        { kind: 'arc', ink, x, y: y - BARE_PX + 2, r: 9, fromDeg: -50, toDeg: 230, widthPx: 2 },
        box(5, y - 14, y),
      ];
    case 'pin':
      return [box(2.5, y - BARE_PX, y - 12), box(5, y - 12, y)];
    case 'plug':
      return [box(4, y - BARE_PX, y - 16), box(9, y - 16, y)];
    default:
      return [
        {
          kind: 'line',
          ink,
          widthPx: 2,
          points: [
            [x, y - BARE_PX],
            [x, y],
          ],
        },
      ];
  }
}

function shapesOf(one: PortEnd, x: number, side: number): Shape[] {
  const ink = one.isWrong ? 'over' : 'symbol';
  const bottom = TOP_PX + BOX_PX;
  const covered = bottom + BARE_PX;
  const half = BOX_PX / 2;
  const word = (
    y: number,
    text: string,
    more: { readonly bold?: boolean; readonly quiet?: boolean } = {},
  ): Shape => ({
    kind: 'text',
    ink: more.quiet === true ? 'quiet' : one.isWrong ? 'over' : 'word',
    x,
    y,
    text,
    sizePx: more.bold === true ? 15 : 12,
    anchor: 'middle',
    ...(more.bold === true ? { bold: true } : {}),
  });
  const words = [one.size ?? 'size not known', one.colour, one.end].filter((text) => text !== undefined);
  return [
    {
      kind: 'line',
      ink,
      widthPx: 1.5,
      points: [
        [x - half, TOP_PX],
        [x + half, TOP_PX],
        [x + half, bottom],
        [x - half, bottom],
        [x - half, TOP_PX],
      ],
    },
    { kind: 'circle', ink, x, y: TOP_PX + half, r: 9, widthPx: 1.5, ...(one.isDone ? { filled: true } : {}) },
    ...(one.isDone
      ? []
      : [
          {
            kind: 'line',
            ink,
            widthPx: 1.5,
            points: [
              [x - 6, TOP_PX + half + 6],
              [x + 6, TOP_PX + half - 6],
            ],
          } as const,
        ]),
    word(TOP_PX - 10, one.order === undefined ? one.terminal : `${one.order}. ${one.terminal}`, {
      bold: true,
    }),
    ...endShapes(one, x, covered),
    {
      kind: 'line',
      ink,
      widthPx: widthOf(one.size),
      points: [
        [x, covered],
        [x, covered + COVERED_PX],
      ],
    },
    ...(one.stripMm === undefined
      ? []
      : [
          {
            kind: 'line',
            ink: 'quiet',
            widthPx: 1,
            points: [
              [x + side, bottom],
              [x + side, covered],
            ],
          } as const,
          {
            kind: 'text',
            ink: 'quiet',
            x: x + side + 4,
            y: bottom + BARE_PX / 2 + 4,
            text: `${one.stripMm}`,
            sizePx: 11,
            anchor: 'start',
          } as const,
        ]),
    ...words.map((text, at) => word(covered + COVERED_PX + 16 + at * 15, text, { quiet: at > 0 })),
  ];
}

/**
 * A port as one stands before it: its terminals side by side with what goes into each. Strip lengths in mm; a filled screw is one that is
 * done; numbers say which is landed first where the type wants an order.
 */
export function drawPort(ends: readonly PortEnd[]): Drawing {
  return {
    widthPx: 2 * EDGE_PX + Math.max(0, ends.length - 1) * STEP_PX,
    heightPx: TOP_PX + BOX_PX + BARE_PX + COVERED_PX + 62,
    shapes: ends.flatMap((one, at) => shapesOf(one, EDGE_PX + at * STEP_PX, 15)),
  };
}
