import type { Bank, Design, Stack } from './schema.ts';

/** What a change took away, by kind; units and modules by the set they stood in. */
interface Lost {
  readonly stacks: ReadonlySet<string>;
  readonly partitions: ReadonlySet<string>;
  readonly generators: ReadonlySet<string>;
  readonly arrays: ReadonlySet<string>;
  readonly controllers: ReadonlySet<string>;
  readonly instruments: ReadonlySet<string>;
  readonly mounted: ReadonlySet<string>;
  readonly units: ReadonlySet<string>;
  readonly modules: ReadonlySet<string>;
}

interface Named {
  readonly id: string;
}

const inSet = (stackId: string | undefined, id: string | undefined): string => `${stackId ?? ''} ${id ?? ''}`;

/** Ids that were there and are not any more. */
function gone(before: readonly string[], after: readonly string[]): ReadonlySet<string> {
  const left = new Set(after);
  return new Set(before.filter((id) => !left.has(id)));
}
const goneOf = (before: readonly Named[], after: readonly Named[]): ReadonlySet<string> =>
  before === after
    ? new Set()
    : gone(
        before.map(({ id }) => id),
        after.map(({ id }) => id),
      );

const unitsOf = (stacks: readonly Stack[]): string[] =>
  stacks.flatMap(({ id, units }) => units.map((unit) => inSet(id, unit.id)));
const modulesOf = (stacks: readonly Stack[]): string[] =>
  stacks.flatMap(({ id, bank }) =>
    typeof bank === 'object' ? bank.modules.map((module) => inSet(id, module.id)) : [],
  );

function lostBetween(before: Design, after: Design): Lost {
  const isSame = before.stacks === after.stacks;
  return {
    stacks: goneOf(before.stacks, after.stacks),
    partitions: goneOf(before.partitions, after.partitions),
    generators: goneOf(before.generators, after.generators),
    arrays: goneOf(before.arrays, after.arrays),
    controllers: goneOf(before.controllers, after.controllers),
    instruments: goneOf(before.instruments, after.instruments),
    mounted: goneOf(before.place?.mounted ?? [], after.place?.mounted ?? []),
    units: isSame ? new Set() : gone(unitsOf(before.stacks), unitsOf(after.stacks)),
    modules: isSame ? new Set() : gone(modulesOf(before.stacks), modulesOf(after.stacks)),
  };
}

/** An entity without those of its fields that name what is lost. */
function without<T extends object, K extends keyof T>(target: T, fields: Partial<Record<K, boolean>>): T {
  const lost = (Object.keys(fields) as K[]).filter(
    (key) => fields[key] === true && target[key] !== undefined,
  );
  if (lost.length === 0) return target;
  const copy = { ...target };
  for (const key of lost) Reflect.deleteProperty(copy, key);
  return copy;
}

interface Link {
  readonly from: string;
  readonly to: string;
}

/** Terminators of a bus some of whose parts are gone: they move to the ones that stood next to those. */
function endsLeft(
  ends: readonly string[] | undefined,
  links: readonly Link[],
  isGone: (id: string) => boolean,
): string[] | undefined {
  if (ends === undefined || !ends.some(isGone)) return ends === undefined ? undefined : [...ends];
  const next = (id: string, seen: ReadonlySet<string>): string | undefined => {
    if (!isGone(id)) return id;
    for (const { from, to } of links) {
      const other = from === id ? to : to === id ? from : undefined;
      if (other === undefined || seen.has(other)) continue;
      const found = next(other, new Set([...seen, id]));
      if (found !== undefined) return found;
    }
    return undefined;
  };
  return [...new Set(ends.flatMap((id) => next(id, new Set([id])) ?? []))];
}

function bankLeft(stackId: string, bank: Bank, { modules }: Lost): Bank {
  const { comms } = bank;
  const isGone = (id: string): boolean => modules.has(inSet(stackId, id));
  if (comms === undefined) return bank;
  const between = comms.links.filter(({ from }) => from !== 'host');
  const terminated = endsLeft(comms.terminated, between, isGone);
  return {
    ...bank,
    comms: {
      ...comms,
      links: comms.links.filter(({ from, to }) => !isGone(from) && !isGone(to)),
      ...(terminated === undefined ? {} : { terminated }),
      ...(comms.offBus === undefined ? {} : { offBus: comms.offBus.filter((id) => !isGone(id)) }),
    },
  };
}

function stackLeft(stack: Stack, lost: Lost): Stack {
  const isGone = (id: string | undefined): boolean => lost.units.has(inSet(stack.id, id));
  const links = stack.busLinks?.map(({ fromUnitId, toUnitId }) => ({ from: fromUnitId, to: toUnitId }));
  const terminated = endsLeft(stack.terminated, links ?? [], isGone);
  const left: Stack = {
    ...stack,
    ...(terminated === undefined ? {} : { terminated }),
    ...(stack.busLinks === undefined
      ? {}
      : {
          busLinks: stack.busLinks.filter(
            ({ fromUnitId, toUnitId }) => !isGone(fromUnitId) && !isGone(toUnitId),
          ),
        }),
    ...(typeof stack.bank === 'object' ? { bank: bankLeft(stack.id, stack.bank, lost) } : {}),
  };
  return without(left, { hostUnitId: isGone(stack.hostUnitId) });
}

/** What hangs on the wall for something that is gone comes off it, with its routes. */
function placeLeft(place: Design['place'], lost: Lost): Design['place'] {
  if (place === undefined) return undefined;
  const off = new Set(lost.mounted);
  for (const { id, part, stackId, partId } of place.mounted)
    if ((part === 'unit' ? lost.units : lost.modules).has(inSet(stackId, partId))) off.add(id);
  return {
    ...place,
    mounted: place.mounted.filter(({ id }) => !off.has(id)),
    routes: place.routes.filter(({ fromId, toId }) => !off.has(fromId) && !off.has(toId)),
  };
}

/**
 * Lets go of whatever names a thing that a change has taken away: cables of buses and devices of a unit that is gone, its place on the
 * wall, the board of a circuit. One step with the change, and undone with it. References that led nowhere before stay as they are.
 */
export function withoutLost(before: Design, after: Design): Design {
  const lost = lostBetween(before, after);
  if (Object.values(lost).every((ids: ReadonlySet<string>) => ids.size === 0)) return after;
  const has = (kind: keyof Lost, id: string | undefined): boolean => id !== undefined && lost[kind].has(id);
  const hasUnit = (stackId: string | undefined, id: string | undefined): boolean =>
    has('stacks', stackId) || lost.units.has(inSet(stackId, id));
  const place = placeLeft(after.place, lost);
  const hung = new Set(place?.mounted.map(({ id }) => id));
  return {
    ...after,
    ...(place === undefined ? {} : { place }),
    circuits: after.circuits.map((one) => without(one, { partitionId: has('partitions', one.partitionId) })),
    partitions: after.partitions.map((one) => without(one, { stackId: has('stacks', one.stackId) })),
    generators: after.generators.map((one) => without(one, { stackId: has('stacks', one.stackId) })),
    stacks: after.stacks.map((one) => stackLeft(one, lost)),
    arrays: after.arrays.map((one) => ({
      ...without(one, { partitionId: has('partitions', one.partitionId) }),
      ...(one.places === undefined
        ? {}
        : { places: one.places.filter(({ stackId, unitId }) => !hasUnit(stackId, unitId)) }),
    })),
    controllers: after.controllers.map((one) => ({
      ...one,
      stackIds: one.stackIds.filter((id) => !has('stacks', id)),
    })),
    startCases: after.startCases.filter(({ stackId }) => !has('stacks', stackId)),
    instruments: after.instruments.map((one) =>
      without(one, {
        readBy: has('stacks', one.readBy),
        readByUnitId: hasUnit(one.readBy, one.readByUnitId),
        meterId: has('instruments', one.meterId),
      }),
    ),
    devices: after.devices
      .filter(
        (one) =>
          !hasUnit(one.stackId, one.unitId) &&
          !lost.modules.has(inSet(one.stackId, one.moduleId)) &&
          !has('partitions', one.partitionId) &&
          !has('generators', one.generatorId) &&
          !has('arrays', one.arrayId) &&
          !has('controllers', one.controllerId),
      )
      .map((one) => without(one, { mountedId: one.mountedId !== undefined && !hung.has(one.mountedId) })),
  };
}
