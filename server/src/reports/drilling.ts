import { type Analysis, drillingHoles, type Hole } from '@bastion/core';
import type { CanvasElement, Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { heading, LAW, moment, table } from './page.ts';

/** Points of a PDF in a millimetre: 72 per inch, 25.4 mm per inch. */
const PT_PER_MM = 72 / 25.4;
/** What of an A4 sheet each tile covers, mm; the rest is margin for printers and for the tape. */
const TILE_MM = { width: 180, height: 250 } as const;
const MARGIN_MM = { left: 15, top: 22 } as const;
const CHECK_BAR_MM = 100;
const CROSS_MM = 8;

const pt = (mm: number): number => mm * PT_PER_MM;
const line = (x1: number, y1: number, x2: number, y2: number, width = 0.5): CanvasElement => ({
  type: 'line',
  x1: pt(x1),
  y1: pt(y1),
  x2: pt(x2),
  y2: pt(y2),
  lineWidth: width,
});
const cross = (x: number, y: number, size: number): CanvasElement[] => [
  line(x - size / 2, y, x + size / 2, y),
  line(x, y - size / 2, x, y + size / 2),
];

interface Tile {
  readonly column: number;
  readonly row: number;
  /** Lower left corner on the wall, mm from the datum. */
  readonly xMm: number;
  readonly yMm: number;
  readonly holes: readonly Hole[];
}

/** The sheets that hold at least one hole, from the datum outwards. */
export function tilesOf(holes: readonly Hole[]): Tile[] {
  const byPlace = new Map<string, { column: number; row: number; holes: Hole[] }>();
  for (const hole of holes) {
    const column = Math.floor((hole.xM * 1000) / TILE_MM.width);
    const row = Math.floor((hole.yM * 1000) / TILE_MM.height);
    const key = `${column}/${row}`;
    const tile = byPlace.get(key) ?? { column, row, holes: [] };
    tile.holes.push(hole);
    byPlace.set(key, tile);
  }
  return [...byPlace.values()]
    .sort((a, b) => b.row - a.row || a.column - b.column)
    .map((tile) => ({ ...tile, xMm: tile.column * TILE_MM.width, yMm: tile.row * TILE_MM.height }));
}

/** One sheet at 1:1: its frame with a registration mark in each corner, its holes, and a bar to measure the print by. */
function sheet(tile: Tile): Content[] {
  const { width, height } = TILE_MM;
  const marks = [
    [0, 0],
    [width, 0],
    [0, height],
    [width, height],
  ].flatMap(([x = 0, y = 0]) => cross(x, y, CROSS_MM));
  const placed = tile.holes.map((hole) => ({
    hole,
    x: hole.xM * 1000 - tile.xMm,
    y: height - (hole.yM * 1000 - tile.yMm),
  }));
  const drawn = placed.flatMap(({ hole, x, y }): CanvasElement[] => [
    ...cross(x, y, hole.diameterMm + 8),
    {
      type: 'ellipse',
      x: pt(x),
      y: pt(y),
      r1: pt(hole.diameterMm / 2),
      r2: pt(hole.diameterMm / 2),
      lineWidth: 0.7,
    },
  ]);
  const at = (x: number, y: number): { x: number; y: number } => ({
    x: pt(MARGIN_MM.left + x),
    y: pt(MARGIN_MM.top + y),
  });
  return [
    {
      text: `Sheet ${tile.column + 1}/${tile.row + 1}. Lower left corner: x ${tile.xMm} mm, y ${tile.yMm} mm from the datum.`,
      absolutePosition: { x: pt(MARGIN_MM.left), y: pt(8) },
      fontSize: 9,
      bold: true,
    },
    {
      canvas: [
        {
          type: 'rect',
          x: 0,
          y: 0,
          w: pt(width),
          h: pt(height),
          lineWidth: 0.3,
          dash: { length: 4, space: 4 },
        },
        ...marks,
        ...drawn,
        line(10, height - 6, 10 + CHECK_BAR_MM, height - 6, 1.5),
        line(10, height - 9, 10, height - 3, 1.5),
        line(10 + CHECK_BAR_MM, height - 9, 10 + CHECK_BAR_MM, height - 3, 1.5),
      ],
      absolutePosition: at(0, 0),
    },
    {
      text: `This bar must measure ${CHECK_BAR_MM} mm. If it does not, print again at 100 %.`,
      absolutePosition: at(10, height - 15),
      fontSize: 7,
    },
    ...placed.map(({ hole, x, y }): Content => ({
      text: `${hole.label}\nx ${Math.round(hole.xM * 1000)}  y ${Math.round(hole.yM * 1000)}  ø ${hole.diameterMm}`,
      absolutePosition: at(x + hole.diameterMm / 2 + 3, y + 2),
      fontSize: 7,
    })),
  ];
}

/** The drilling marks of the wall: a list from the datum, and the template at 1:1 across A4 sheets. */
export function drillingTemplate(
  { design, installation }: Analysis,
  made: { readonly revision: number; readonly madeAt: Date },
): TDocumentDefinitions {
  const holes = drillingHoles(installation.wall);
  const tiles = tilesOf(holes);
  const datum = installation.place?.datum ?? 'not described';
  const rows = holes.map((hole, index): Content[] => [
    String(index + 1),
    hole.label,
    { text: String(Math.round(hole.xM * 1000)), alignment: 'right' },
    { text: String(Math.round(hole.yM * 1000)), alignment: 'right' },
    { text: String(hole.diameterMm), alignment: 'right' },
  ]);
  return {
    pageSize: 'A4',
    pageMargins: [pt(MARGIN_MM.left), pt(MARGIN_MM.left), pt(MARGIN_MM.left), pt(18)],
    info: { title: `${design.name}: drilling marks` },
    defaultStyle: { font: 'Roboto', fontSize: 9 },
    footer: (page, pages) => ({
      margin: [pt(MARGIN_MM.left), 4, pt(MARGIN_MM.left), 0],
      columns: [
        { text: LAW, fontSize: 6 },
        { text: `${page} / ${pages}`, alignment: 'right', width: 50 },
      ],
    }),
    content: [
      { text: `${design.name}: drilling marks`, fontSize: 16, bold: true },
      {
        text: `Revision ${made.revision}, printed ${moment(made.madeAt)}. Datum: ${datum}. All figures in mm.`,
        margin: [0, 2, 0, 6],
      },
      'Look for pipes and cables in the wall before drilling. Print at 100 %, measure the bar on each sheet, lay the corner marks of neighbouring sheets over each other.',
      heading(`${holes.length} holes on ${tiles.length} sheets`),
      ...(holes.length === 0
        ? ['No thing on the wall has a drilling template yet.']
        : [table([20, '*', 50, 50, 40], ['', 'Of', 'x', 'y', 'ø'], rows)]),
      ...tiles.map((tile): Content => ({ stack: [{ text: ' ', pageBreak: 'before' }, ...sheet(tile)] })),
    ],
  };
}
