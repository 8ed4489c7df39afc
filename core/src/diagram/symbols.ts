import type { SymbolKind } from './graph.ts';
import { CONTACT_PX } from './layout.ts';
import type { Shape } from './shapes.ts';

/** Which open standard the symbols follow. */
export type SymbolStandard = 'IEC 60617' | 'IEEE 315';

/** How the switching part of a symbol stands. */
export type Position = 'closed' | 'open' | 'unknown' | 'normal' | 'alternate';

type Plain = Shape extends infer S ? (S extends Shape ? Omit<S, 'nodeId' | 'ink'> : never) : never;
type Pen = Plain[];

const STROKE = 1.6;
type Point = readonly [number, number];
const line = (...points: Point[]): Plain => ({ kind: 'line', points, widthPx: STROKE });
const thick = (...points: Point[]): Plain => ({ kind: 'line', points, widthPx: 4 });
const circle = (x: number, y: number, r: number, filled = false): Plain => ({
  kind: 'circle',
  x,
  y,
  r,
  widthPx: STROKE,
  filled,
});
const letter = (x: number, y: number, text: string, sizePx = 13): Plain => ({
  kind: 'text',
  x,
  y,
  text,
  sizePx,
  anchor: 'middle',
});
const box = (x: number, y: number, w: number, h: number): Plain =>
  line([x, y], [x + w, y], [x + w, y + h], [x, y + h], [x, y]);
const sine = (x: number, y: number, r: number): Plain[] => [
  { kind: 'arc', x: x - r / 2, y, r: r / 2, fromDeg: 180, toDeg: 360, widthPx: STROKE },
  { kind: 'arc', x: x + r / 2, y, r: r / 2, fromDeg: 0, toDeg: 180, widthPx: STROKE },
];

/** A blade between two fixed points: closed it lies in the line, open it hangs beside it, not known it is both, dotted. */
function blade(x: number, height: number, position: Position): Pen {
  const top = height * 0.28;
  const foot = height * 0.72;
  const open: Plain = line([x, foot], [x - 11, top + 2]);
  const shut: Plain = line([x, foot], [x, top]);
  const stubs = [line([x, 0], [x, top]), line([x, foot], [x, height])];
  if (position === 'open') return [...stubs, open];
  if (position === 'unknown')
    return [...stubs, { ...open, dash: [2, 2] } as Plain, letter(x + 9, height / 2 + 4, '?', 11)];
  return [...stubs, shut];
}

/** Circuit breaker: a cross at the fixed contact, or in the North American way an arc over the gap. */
function breaker(x: number, height: number, position: Position, standard: SymbolStandard): Pen {
  const top = height * 0.28;
  if (standard === 'IEC 60617')
    return [
      ...blade(x, height, position),
      line([x - 4, top - 4], [x + 4, top + 4]),
      line([x - 4, top + 4], [x + 4, top - 4]),
    ];
  const foot = height * 0.72;
  const lift = position === 'open' ? 6 : 0;
  return [
    line([x, 0], [x, top]),
    line([x, foot], [x, height]),
    {
      kind: 'arc',
      x: x + lift,
      y: height / 2,
      r: (foot - top) / 2,
      fromDeg: -90,
      toDeg: 90,
      widthPx: STROKE,
    },
    ...(position === 'unknown' ? [letter(x - 8, height / 2 + 4, '?', 11)] : []),
  ];
}

/** A changeover: two fixed contacts above, one of them met by the blade. */
function changeover(x: number, height: number, position: Position): Pen {
  const [left, right] = [x - CONTACT_PX, x + CONTACT_PX];
  const foot = height * 0.75;
  const blades: Pen =
    position === 'normal'
      ? [line([x, foot], [left, 14])]
      : position === 'alternate'
        ? [line([x, foot], [right, 14])]
        : [line([x, foot], [x, 18])];
  return [
    line([left, 0], [left, 12]),
    line([right, 0], [right, 12]),
    circle(left, 14, 2),
    circle(right, 14, 2),
    ...blades,
    line([x, foot], [x, height]),
  ];
}

function ground(x: number, y: number): Pen {
  return [
    line([x - 9, y], [x + 9, y]),
    line([x - 6, y + 4], [x + 6, y + 4]),
    line([x - 3, y + 8], [x + 3, y + 8]),
  ];
}

/** The shapes of a symbol around its axis, from its upper left corner. */
export function symbolShapes(
  kind: SymbolKind,
  size: { readonly widthPx: number; readonly heightPx: number; readonly axisPx: number },
  position: Position,
  standard: SymbolStandard,
): Pen {
  const { widthPx: w, heightPx: h, axisPx: x } = size;
  const middle = h / 2;
  const through = [line([x, 0], [x, h])];
  switch (kind) {
    case 'grid':
      return [circle(x, middle, 14), ...sine(x, middle, 8), line([x, middle + 14], [x, h])];
    case 'generator':
      return [
        circle(x, middle, 15),
        letter(x, middle, 'G', 13),
        ...sine(x, middle + 7, 5),
        line([x, middle + 15], [x, h]),
      ];
    case 'board':
    case 'bus':
    case 'bar':
      return [thick([0, h - 5], [w, h - 5]), line([x, 0], [x, 3]), line([x, h - 5], [x, h])];
    case 'inverter':
      return [
        box(x - 26, 2, 52, h - 4),
        line([x - 26, h - 2], [x + 26, 2]),
        ...sine(x - 12, 16, 7),
        line([x + 5, h - 18], [x + 19, h - 18]),
        line([x + 5, h - 13], [x + 19, h - 13]),
      ];
    case 'breaker':
      return breaker(x, h, position, standard);
    case 'isolator':
      return [...blade(x, h, position), line([x - 5, h * 0.28], [x + 5, h * 0.28])];
    case 'contactor':
      return [
        ...blade(x, h, position),
        { kind: 'arc', x, y: h * 0.28 - 3, r: 3.5, fromDeg: 0, toDeg: 180, widthPx: STROKE },
      ];
    case 'bypass':
      return [...blade(x, h, position), line([x - 5, h * 0.28], [x + 5, h * 0.28])];
    case 'changeover':
      return changeover(x, h, position);
    case 'relay-kit':
      return [...ground(x, middle), line([x, 0], [x, middle])];
    case 'autotransformer':
      return [
        line([x, 0], [x, middle - 14]),
        ...[-9, 0, 9].map((dy): Plain => ({
          kind: 'arc',
          x,
          y: middle + dy,
          r: 5,
          fromDeg: -90,
          toDeg: 90,
          widthPx: STROKE,
        })),
        line([x, middle + 14], [x, h]),
      ];
    case 'array':
      return [
        box(x - 16, 4, 32, h - 12),
        line([x - 16, h - 8], [x, 12], [x + 16, h - 8]),
        line([x, h - 8], [x, h]),
      ];
    case 'bank':
      return [
        line([x, 0], [x, middle - 8]),
        line([x - 13, middle - 8], [x + 13, middle - 8]),
        thick([x - 7, middle - 2], [x + 7, middle - 2]),
        line([x - 13, middle + 4], [x + 13, middle + 4]),
        thick([x - 7, middle + 10], [x + 7, middle + 10]),
      ];
    case 'instrument':
      return [circle(x, middle, 13), letter(x, middle + 5, 'M', 12), line([x, 0], [x, middle - 13])];
    case 'controller':
      return [box(x - 15, 6, 30, h - 12), letter(x, middle + 5, 'C', 13), ...through.slice(1)];
    case 'earth':
      return [line([x, 0], [x, middle - 4]), ...ground(x, middle - 4)];
  }
}

/** A neutral–earth bond beside its part: joined where it is closed, a gap where it is open. */
export function bondShapes(x: number, y: number, position: 'closed' | 'open' | 'unknown'): Pen {
  return [
    letter(x, y - 6, 'N', 10),
    position === 'closed' ? line([x, y - 3], [x, y + 9]) : line([x, y + 9], [x - 6, y]),
    ...(position === 'unknown' ? [letter(x + 9, y + 5, '?', 11)] : []),
    ...ground(x, y + 9),
  ];
}
