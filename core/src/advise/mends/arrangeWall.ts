import { checkById } from '../../checks/registry.ts';
import { findingsOf, limitModes } from '../../checks/runChecks.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import type { Installation } from '../../installation/installation.ts';
import { type Clearance, compileWall, type OnWall, type Rect } from '../../installation/place/wall.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

type Axis = 'x' | 'y';

/** A thing on the wall with what is known of it; what is not known is not moved. */
interface Thing {
  readonly id: string;
  readonly rect: Rect;
  readonly need: Clearance;
}

/** Nought for what asks for nothing. */
const NO_NEED: Clearance = { sidesM: 0, aboveM: 0, belowM: 0 };
/** Things are hung to the millimetre. */
const MILLI = 1000;
const upToMm = (m: number): number => Math.ceil(m * MILLI - 1e-6) / MILLI;
const downToMm = (m: number): number => Math.floor(m * MILLI + 1e-6) / MILLI;

const start = (rect: Rect, axis: Axis): number => (axis === 'x' ? rect.xM : rect.yM);
const size = (rect: Rect, axis: Axis): number => (axis === 'x' ? rect.widthM : rect.heightM);
const end = (rect: Rect, axis: Axis): number => start(rect, axis) + size(rect, axis);
const moved = (rect: Rect, axis: Axis, to: number): Rect =>
  axis === 'x' ? { ...rect, xM: to } : { ...rect, yM: to };

/** Whether two face each other along an axis: they share some of the other one. */
function faces(a: Rect, b: Rect, axis: Axis): boolean {
  const other: Axis = axis === 'x' ? 'y' : 'x';
  return Math.min(end(a, other), end(b, other)) > Math.max(start(a, other), start(b, other));
}

/** Room between a thing and the one that comes after it along an axis: the larger of what both ask for. */
const between = (before: Clearance, after: Clearance, axis: Axis): number =>
  axis === 'x' ? Math.max(before.sidesM, after.sidesM) : Math.max(before.aboveM, after.belowM);
const atStart = (need: Clearance, axis: Axis): number => (axis === 'x' ? need.sidesM : need.belowM);
const atEnd = (need: Clearance, axis: Axis): number => (axis === 'x' ? need.sidesM : need.aboveM);

/**
 * Moves things along an axis by as little as keeps what they ask for: first away from the start, each past those before it, then, where
 * the wall ends, back from its end. What is fixed to the building stays and is passed over.
 */
function spread(
  things: readonly Thing[],
  fixed: readonly Rect[],
  axis: Axis,
  lengthM: number | undefined,
): Thing[] {
  const order = [...things].sort((a, b) => start(a.rect, axis) - start(b.rect, axis));
  const place = (thing: Thing, to: number): Thing => ({ ...thing, rect: moved(thing.rect, axis, to) });
  const forth: Thing[] = [];
  for (const thing of order) {
    let at = Math.max(start(thing.rect, axis), atStart(thing.need, axis));
    for (const before of forth)
      if (faces(thing.rect, before.rect, axis))
        at = Math.max(at, end(before.rect, axis) + between(before.need, thing.need, axis));
    for (const one of [...fixed].sort((a, b) => start(a, axis) - start(b, axis)))
      if (
        faces(thing.rect, one, axis) &&
        at + size(thing.rect, axis) + atEnd(thing.need, axis) > start(one, axis) &&
        at < end(one, axis) + atStart(thing.need, axis)
      )
        at = end(one, axis) + atStart(thing.need, axis);
    forth.push(place(thing, upToMm(at)));
  }
  if (lengthM === undefined) return forth;
  const back: Thing[] = [];
  for (const thing of forth.toReversed()) {
    const long = size(thing.rect, axis);
    let at = Math.min(start(thing.rect, axis), lengthM - atEnd(thing.need, axis) - long);
    for (const after of back)
      if (faces(thing.rect, after.rect, axis))
        at = Math.min(at, start(after.rect, axis) - between(thing.need, after.need, axis) - long);
    for (const one of [...fixed].sort((a, b) => end(b, axis) - end(a, axis)))
      if (
        faces(thing.rect, one, axis) &&
        at + long + atEnd(thing.need, axis) > start(one, axis) &&
        at < end(one, axis) + atStart(thing.need, axis)
      )
        at = start(one, axis) - atEnd(thing.need, axis) - long;
    back.push(place(thing, at === start(thing.rect, axis) ? at : downToMm(at)));
  }
  return back;
}

const thingOf = ({ mounted, rect, clearance }: OnWall): Thing[] =>
  rect.known ? [{ id: mounted.id, rect: rect.value, need: clearance.known ? clearance.value : NO_NEED }] : [];

function withThings(design: Design, things: readonly Thing[]): Design {
  const rects = new Map(things.map(({ id, rect }) => [id, rect]));
  const { place } = design;
  if (place === undefined) return design;
  return {
    ...design,
    place: {
      ...place,
      mounted: place.mounted.map((one) => {
        const rect = rects.get(one.id);
        const isThere = rect === undefined || (rect.xM === one.xM && rect.yM === one.yM);
        return isThere ? one : { ...one, xM: rect.xM, yM: rect.yM };
      }),
    },
  };
}

/** How many things are over of what must be cleared, and of what must not become more. */
function overOn(installation: Installation, design: Design, { catalogue }: Trouble): [number, number] {
  // Nothing else of an installation follows from where things hang.
  const there = { ...installation, place: design.place, wall: compileWall(design, catalogue) };
  const [mode] = limitModes(there);
  if (mode === undefined) return [0, 0];
  const over = (
    checks: readonly ('place.clearance' | 'place.overlap' | 'place.height' | 'place.exposure')[],
  ) =>
    checks
      .flatMap((check) => findingsOf(checkById(check), { installation: there, mode }))
      .filter(({ state }) => state === 'over').length;
  return [over(['place.clearance', 'place.overlap']), over(['place.height', 'place.exposure'])];
}

/**
 * All things on the wall at once, each moved by as little as keeps every clearance: along the wall first, then in height, or the other
 * way round. Offered where nothing then reaches into anything or stands too near, and nothing hangs worse than before.
 */
export function arrangedWall(trouble: Trouble): Candidate[] {
  const { place } = trouble.design;
  if ((place?.mounted.length ?? 0) < 2) return [];
  const fixed = (place?.obstacles ?? []).filter(({ kind }) => kind !== 'sunlit' && kind !== 'combustible');
  const { widthM, heightM } = place?.wall ?? {};
  const along = (things: readonly Thing[], axis: Axis): Thing[] =>
    spread(things, fixed, axis, axis === 'x' ? widthM : heightM);
  return [
    once(
      'arrange-wall',
      'Arrange the wall: move what stands too near until every clearance is kept',
      (draft) => {
        const installation = compile(draft, trouble.catalogue);
        const [, before] = overOn(installation, draft, trouble);
        const things = installation.wall.flatMap(thingOf);
        for (const axes of [['x'], ['y'], ['x', 'y'], ['y', 'x'], ['x', 'y', 'x']] as const) {
          const tried = withThings(draft, axes.reduce<Thing[]>(along, things));
          const [near, hung] = overOn(installation, tried, trouble);
          if (near === 0 && hung <= before) return tried;
        }
        return undefined;
      },
    ),
  ];
}
