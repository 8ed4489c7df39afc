import type { Body } from '../../catalogue/common.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import { field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Mounted, Obstacle } from '../../design/place.ts';
import type { Design } from '../../design/schema.ts';

/** A rectangle on the wall, metres from the datum; x to the right, y upwards. */
export interface Rect {
  readonly xM: number;
  readonly yM: number;
  readonly widthM: number;
  readonly heightM: number;
}

/** Free space that a thing wants around it. */
export interface Clearance {
  readonly sidesM: number;
  readonly aboveM: number;
  readonly belowM: number;
}

/** One thing on the wall with what its type says of it. */
export interface OnWall {
  readonly mounted: Mounted;
  readonly label: string;
  readonly path: Path;
  readonly rect: Known<Rect>;
  /** Undefined for a plain box, which asks for none. */
  readonly body: Known<Body> | undefined;
  readonly clearance: Known<Clearance>;
  readonly massKg: Known<number>;
  /** Its type, where that is known. */
  readonly typeId?: string;
}

export interface Hole {
  readonly label: string;
  readonly xM: number;
  readonly yM: number;
  readonly diameterMm: number;
}

export const rightOf = (rect: Rect): number => rect.xM + rect.widthM;
export const topOf = (rect: Rect): number => rect.yM + rect.heightM;

/** How far two rectangles reach into each other, m: the smaller of both directions; 0 or less where they do not. */
export function overlapM(a: Rect, b: Rect): number {
  const across = Math.min(rightOf(a), rightOf(b)) - Math.max(a.xM, b.xM);
  const up = Math.min(topOf(a), topOf(b)) - Math.max(a.yM, b.yM);
  return Math.min(across, up);
}

/** A rectangle with the free space it wants. */
export const zoneOf = (rect: Rect, { sidesM, aboveM, belowM }: Clearance): Rect => ({
  xM: rect.xM - sidesM,
  yM: rect.yM - belowM,
  widthM: rect.widthM + 2 * sidesM,
  heightM: rect.heightM + belowM + aboveM,
});

const NO_CLEARANCE: Clearance = { sidesM: 0, aboveM: 0, belowM: 0 };

function typeOf(design: Design, catalogue: readonly EquipmentType[], mounted: Mounted): Known<EquipmentType> {
  const path = ['place', 'mounted', mounted.id];
  const stack = design.stacks.find((one) => one.id === mounted.stackId);
  if (stack === undefined) return unknownAt([...path, 'stackId']);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  // A single unit or module may be of another type than its set.
  const own =
    mounted.part === 'unit'
      ? stack.units.find((unit) => unit.id === mounted.partId)?.inverterTypeId
      : bank?.modules.find((module) => module.id === mounted.partId)?.batteryTypeId;
  const id = own ?? (mounted.part === 'unit' ? stack.inverterTypeId : bank?.batteryTypeId);
  const found =
    id === undefined
      ? undefined
      : (design.types.find((one) => one.id === id) ?? catalogue.find((one) => one.id === id));
  if (found !== undefined) return known(found);
  return unknownAt(
    mounted.part === 'unit'
      ? ['stacks', stack.id, 'inverterTypeId']
      : ['stacks', stack.id, 'bank', 'batteryTypeId'],
  );
}

/** What a mounted thing is called: its own name, or the unit or module it is. */
export function mountedLabel(design: Design, mounted: Mounted): string {
  if (mounted.name !== undefined) return mounted.name;
  const stack = design.stacks.find((one) => one.id === mounted.stackId);
  const modules = typeof stack?.bank === 'object' ? stack.bank.modules : [];
  const list = mounted.part === 'unit' ? (stack?.units ?? []) : modules;
  const number = list.findIndex((one) => one.id === mounted.partId) + 1;
  if (number > 0) return `${mounted.part === 'unit' ? 'Unit' : 'Module'} ${number}`;
  return mounted.part === 'box' ? `Box ${mounted.id}` : `A ${mounted.part} that is not in the design`;
}

function bodyOf(type: Known<EquipmentType>): Known<Body> {
  if (!type.known) return type;
  const { value } = type;
  const body = value.kind === 'inverter' || value.kind === 'battery' ? value.body : undefined;
  return body === undefined ? unknownAt(['types', value.id, 'body']) : known(body);
}

function massOf(type: Known<EquipmentType>): Known<number> {
  if (!type.known) return type;
  const { value } = type;
  const massKg = value.kind === 'inverter' || value.kind === 'battery' ? value.massKg : undefined;
  return massKg === undefined ? unknownAt(['types', value.id, 'massKg']) : known(massKg);
}

function compileMounted(design: Design, catalogue: readonly EquipmentType[], mounted: Mounted): OnWall {
  const path = ['place', 'mounted', mounted.id];
  const base = { mounted, label: mountedLabel(design, mounted), path };
  const { xM, yM } = mounted;
  if (mounted.part === 'box') {
    const { widthM, heightM } = mounted;
    return {
      ...base,
      rect:
        widthM === undefined || heightM === undefined
          ? unknownAt(
              ...(widthM === undefined ? [[...path, 'widthM']] : []),
              ...(heightM === undefined ? [[...path, 'heightM']] : []),
            )
          : known({ xM, yM, widthM, heightM }),
      body: undefined,
      clearance: known(NO_CLEARANCE),
      massKg: field(mounted.massKg, ...path, 'massKg'),
    };
  }
  const type = typeOf(design, catalogue, mounted);
  const body = bodyOf(type);
  return {
    ...base,
    ...(type.known ? { typeId: type.value.id } : {}),
    rect: body.known ? known({ xM, yM, widthM: body.value.widthM, heightM: body.value.heightM }) : body,
    body,
    clearance: body.known
      ? known({
          sidesM: body.value.clearSidesM,
          aboveM: body.value.clearAboveM,
          belowM: body.value.clearBelowM,
        })
      : body,
    massKg: mounted.massKg === undefined ? massOf(type) : known(mounted.massKg),
  };
}

/** Everything on the wall with its size, its clearances and its mass. */
export function compileWall(design: Design, catalogue: readonly EquipmentType[]): readonly OnWall[] {
  return (design.place?.mounted ?? []).map((mounted) => compileMounted(design, catalogue, mounted));
}

/** Hole centres of the drilling templates in coordinates of the wall, in the order in which they are marked: top row first. */
export function drillingHoles(wall: readonly OnWall[]): Hole[] {
  return wall
    .flatMap(({ rect, body, label }): Hole[] => {
      if (!rect.known || body?.known !== true) return [];
      return body.value.drilling.map(({ xM, yM, diameterMm }) => ({
        label,
        xM: rect.value.xM + xM,
        yM: rect.value.yM + yM,
        diameterMm,
      }));
    })
    .sort((a, b) => b.yM - a.yM || a.xM - b.xM);
}

/** What an obstacle is called: its own name, or its kind. */
export function obstacleLabel(obstacle: Obstacle): string {
  return obstacle.name ?? obstacle.kind.replace('-', ' ');
}
