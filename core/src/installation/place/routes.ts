import { hypot } from '../../values/elementary.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import type { Route } from '../../design/place.ts';
import type { Design } from '../../design/schema.ts';
import type { OnWall, Rect } from './wall.ts';

/** A route along the wall with the length that a conductor on it is cut to. */
export interface RouteLength {
  readonly route: Route;
  readonly label: string;
  /** Along the wall, from end to end. */
  readonly alongM: Known<number>;
  /** With service loop and slack, and for a set of equals the longest of them. */
  readonly cutM: Known<number>;
}

interface Allowances {
  readonly serviceLoopM: number;
  readonly slack: number;
}

const centre = (rect: Rect): { xM: number; yM: number } => ({
  xM: rect.xM + rect.widthM / 2,
  yM: rect.yM + rect.heightM / 2,
});

function along(wall: readonly OnWall[], route: Route): Known<number> {
  const missing: (string | number)[][] = [];
  const endOf = (id: string, key: 'fromId' | 'toId'): { xM: number; yM: number } | undefined => {
    const found = wall.find((one) => one.mounted.id === id);
    if (found === undefined) missing.push(['place', 'routes', route.id, key]);
    else if (!found.rect.known) missing.push(...found.rect.missing.map((path) => [...path]));
    else return centre(found.rect.value);
    return undefined;
  };
  const from = endOf(route.fromId, 'fromId');
  const to = endOf(route.toId, 'toId');
  if (from === undefined || to === undefined) return unknownAt(...missing);
  const points = [from, ...route.points, to];
  return known(
    points.slice(1).reduce((sum, point, index) => {
      const before = points[index] ?? point;
      return sum + hypot(point.xM - before.xM, point.yM - before.yM);
    }, 0),
  );
}

/**
 * Lengths of the routes: L = (along the wall + service loop at the route) · (1 + slack). Routes of one equal set are cut to
 * the longest of them; while one of a set is not known, none of it is.
 */
export function routeLengths(design: Design, wall: readonly OnWall[], allowances: Allowances): RouteLength[] {
  const single = (design.place?.routes ?? []).map((route) => {
    const alongM = along(wall, route);
    const loopM = route.serviceLoopM ?? allowances.serviceLoopM;
    const cutM = alongM.known ? known((alongM.value + loopM) * (1 + allowances.slack)) : alongM;
    const label = (id: string): string => wall.find((one) => one.mounted.id === id)?.label ?? id;
    return { route, label: route.name ?? `${label(route.fromId)} to ${label(route.toId)}`, alongM, cutM };
  });
  return single.map((one) => {
    const set = one.route.equalSet;
    if (set === undefined) return one;
    const members = single.filter((other) => other.route.equalSet === set);
    const unknown = members.find((member) => !member.cutM.known);
    if (unknown !== undefined) return { ...one, cutM: unknown.cutM };
    return {
      ...one,
      cutM: known(Math.max(...members.flatMap((member) => (member.cutM.known ? [member.cutM.value] : [])))),
    };
  });
}
