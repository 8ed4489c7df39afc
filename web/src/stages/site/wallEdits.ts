import {
  type Design,
  type Mounted,
  type Obstacle,
  type ObstacleKind,
  type OnWall,
  type Place,
  type Rect,
} from '@bastion/core';
import { newId } from '../../state/job.ts';

/** Everything on the wall snaps to this grid, m. */
export const SNAP_M = 0.05;
/** How near an edge must come to another edge to fall onto it, m. */
const EDGE_M = 0.03;

export const roundM = (value: number): number => Math.round(value * 1000) / 1000;

/** The place of a draft; made empty where there is none yet. */
export function placeIn(draft: Design): Place {
  draft.place ??= { mounted: [], obstacles: [], routes: [] };
  return draft.place;
}

interface Unplaced {
  readonly part: 'unit' | 'module';
  readonly stackId: string;
  readonly partId: string;
  readonly label: string;
}

/** Units and modules of the design that are not on the wall yet. */
export function unplaced(design: Design): Unplaced[] {
  const there = new Set(design.place?.mounted.map((one) => `${one.stackId ?? ''}/${one.partId ?? ''}`));
  return design.stacks.flatMap((stack) => {
    const modules = typeof stack.bank === 'object' ? stack.bank.modules : [];
    const parts = [
      ...stack.units.map((unit, index) => ({ part: 'unit' as const, id: unit.id, number: index + 1 })),
      ...modules.map((module, index) => ({ part: 'module' as const, id: module.id, number: index + 1 })),
    ];
    return parts
      .filter(({ id }) => !there.has(`${stack.id}/${id}`))
      .map(({ part, id, number }) => ({
        part,
        stackId: stack.id,
        partId: id,
        label: `${part === 'unit' ? 'Unit' : 'Module'} ${number}${design.stacks.length > 1 ? ` of ${stack.name}` : ''}`,
      }));
  });
}

/** Puts a part to the right of what is there: units at chest height, modules on the floor. */
export function mountPart(draft: Design, part: Unplaced, wall: readonly OnWall[]): void {
  const place = placeIn(draft);
  const alike = wall.filter((one) => one.mounted.part === part.part);
  const right = Math.max(
    0.2,
    ...alike.map((one) =>
      one.rect.known
        ? one.rect.value.xM + one.rect.value.widthM + (one.clearance.known ? one.clearance.value.sidesM : 0.2)
        : one.mounted.xM + 0.6,
    ),
    ...place.mounted.filter((one) => one.part === part.part).map((one) => one.xM + 0.2),
  );
  place.mounted.push({
    id: newId('w'),
    part: part.part,
    stackId: part.stackId,
    partId: part.partId,
    xM: roundM(Math.ceil(right / SNAP_M) * SNAP_M),
    yM: part.part === 'unit' ? 1.2 : 0,
  });
}

export function addBox(draft: Design): void {
  placeIn(draft).mounted.push({
    id: newId('w'),
    name: 'Board',
    part: 'box',
    xM: 0.2,
    yM: 1.2,
    widthM: 0.4,
    heightM: 0.5,
  });
}

export function addObstacle(draft: Design, kind: ObstacleKind): void {
  placeIn(draft).obstacles.push({ id: newId('o'), kind, xM: 0.5, yM: 1, widthM: 0.6, heightM: 0.6 });
}

export function removeFromWall(draft: Design, id: string): void {
  const place = placeIn(draft);
  place.mounted = place.mounted.filter((one) => one.id !== id);
  place.obstacles = place.obstacles.filter((one) => one.id !== id);
  place.routes = place.routes.filter((one) => one.id !== id && one.fromId !== id && one.toId !== id);
}

export const thingIn = (place: Place, id: string): Mounted | Obstacle | undefined =>
  place.mounted.find((one) => one.id === id) ?? place.obstacles.find((one) => one.id === id);

const nearest = (value: number, edges: readonly number[], size: number): number | undefined => {
  const candidates = edges.flatMap((edge) => [edge, edge - size]);
  return candidates
    .filter((one) => Math.abs(one - value) <= EDGE_M)
    .sort((a, b) => Math.abs(a - value) - Math.abs(b - value))[0];
};

/** A dragged place falls onto the edges of its neighbours where it comes near, else onto the grid. */
export function snapTo(moved: Rect, others: readonly Rect[]): { xM: number; yM: number } {
  const x = nearest(
    moved.xM,
    others.flatMap((one) => [one.xM, one.xM + one.widthM]),
    moved.widthM,
  );
  const y = nearest(
    moved.yM,
    others.flatMap((one) => [one.yM, one.yM + one.heightM]),
    moved.heightM,
  );
  const grid = (value: number): number => Math.round(value / SNAP_M) * SNAP_M;
  return { xM: roundM(x ?? grid(moved.xM)), yM: roundM(y ?? grid(moved.yM)) };
}
