import { cos, sin } from '../values/elementary.ts';

/** What a line or word means, so that screen and paper can each ink it their own way. */
export type Ink = 'live' | 'dead' | 'symbol' | 'word' | 'quiet' | 'over' | 'unknown' | 'path';

interface Drawn {
  readonly ink: Ink;
  /** The node it belongs to, for picking. */
  readonly nodeId?: string;
  readonly edgeId?: string;
}

/** Plain shapes: all a drawing is made of. Lengths in px. */
export type Shape = Drawn &
  (
    | {
        readonly kind: 'line';
        readonly points: readonly (readonly [number, number])[];
        readonly widthPx: number;
        readonly dash?: readonly number[];
      }
    | {
        readonly kind: 'circle';
        readonly x: number;
        readonly y: number;
        readonly r: number;
        readonly widthPx: number;
        readonly filled?: boolean;
      }
    | {
        readonly kind: 'arc';
        readonly x: number;
        readonly y: number;
        readonly r: number;
        /** Clockwise from the right, degrees. */
        readonly fromDeg: number;
        readonly toDeg: number;
        readonly widthPx: number;
      }
    | {
        readonly kind: 'text';
        readonly x: number;
        readonly y: number;
        readonly text: string;
        readonly sizePx: number;
        readonly anchor: 'start' | 'middle' | 'end';
        readonly bold?: boolean;
      }
  );

/** A drawing of some size. */
export interface Drawing {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly shapes: readonly Shape[];
}

/** A point on a circle; degrees clockwise from the right. */
export const onCircle = (x: number, y: number, r: number, deg: number): readonly [number, number] => [
  x + r * cos((deg * Math.PI) / 180),
  y + r * sin((deg * Math.PI) / 180),
];

/** An arc as short straight pieces, for what knows none. */
export function arcPoints(
  arc: Extract<Shape, { kind: 'arc' }>,
  pieces = 12,
): readonly (readonly [number, number])[] {
  return Array.from({ length: pieces + 1 }, (_, at) =>
    onCircle(arc.x, arc.y, arc.r, arc.fromDeg + ((arc.toDeg - arc.fromDeg) * at) / pieces),
  );
}
