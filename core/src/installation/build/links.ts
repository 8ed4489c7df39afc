import type { CommsPin } from '../../catalogue/common.ts';
import type { CompiledArray, CompiledController, CompiledStack } from '../installation.ts';
import type { Path } from '../../values/problem.ts';
import { BOX_PORT, type LinkEnd } from '../network.ts';
import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import type { LaidSet } from './outputs.ts';
import { unitPartId } from './units.ts';

/** One end of a link, with the pins of its socket where its type states them; a type with one port alone has no other. */
export function endOf(
  partId: string,
  socket: string | undefined,
  pins: readonly CommsPin[] | undefined,
  unnamed = 'comms',
): LinkEnd {
  const only = pins?.length === 1 ? pins[0] : undefined;
  const found = socket === undefined ? only : pins?.find(({ port }) => port === socket);
  const name = socket ?? found?.port ?? unnamed;
  return { partId, socket: name, ...(found === undefined ? {} : { pins: found }) };
}

export const pinsOfSet = (compiled: CompiledStack | undefined): readonly CommsPin[] | undefined =>
  compiled?.type.known === true ? compiled.type.value.commsPins : undefined;

export const hostOf = ({ stack }: CompiledStack): string =>
  unitPartId(stack.id, stack.hostUnitId ?? stack.units[0]?.id ?? '');

/** The cables of parallel and battery bus as they are plugged. */
export function layBuses(laying: Laying, sets: readonly LaidSet[]): void {
  for (const { compiled } of sets) {
    const { stack } = compiled;
    const pins = pinsOfSet(compiled);
    for (const link of stack.busLinks ?? [])
      laying.links.push({
        id: `parallel-bus ${stack.id} ${link.id}`,
        kind: 'parallel-bus',
        a: endOf(unitPartId(stack.id, link.fromUnitId), link.fromPort, pins),
        b: endOf(unitPartId(stack.id, link.toUnitId), link.toPort, pins),
        from: ['stacks', stack.id, 'busLinks', link.id],
      });
    const { bank } = stack;
    if (typeof bank !== 'object') continue;
    const pinsOf = (moduleId: string): readonly CommsPin[] | undefined => {
      const typeId = bank.modules.find(({ id }) => id === moduleId)?.batteryTypeId ?? bank.batteryTypeId;
      return typeId === undefined ? undefined : compiled.batteryTypes[typeId]?.commsPins;
    };
    for (const link of bank.comms?.links ?? [])
      laying.links.push({
        id: `battery-bus ${stack.id} ${link.id}`,
        kind: 'battery-bus',
        a:
          link.from === 'host'
            ? endOf(hostOf(compiled), link.fromPort, pins)
            : endOf(`module ${stack.id}/${link.from}`, link.fromPort, pinsOf(link.from)),
        b: endOf(`module ${stack.id}/${link.to}`, link.toPort, pinsOf(link.to)),
        from: ['stacks', stack.id, 'bank', 'comms', 'links', link.id],
      });
  }
}

/** A box that reports by a bus of its own: pair and ground, from the port that the inverter has for it. */
function layBox(
  laying: Laying,
  set: CompiledStack,
  {
    partId,
    pins,
    from,
  }: { readonly partId: string; readonly pins: readonly CommsPin[] | undefined; readonly from: Path },
): void {
  if (pins === undefined || !laying.parts.some(({ id }) => id === partId)) return;
  laying.links.push({
    id: `box-bus ${partId}`,
    kind: 'box-bus',
    a: endOf(hostOf(set), BOX_PORT, pinsOfSet(set)),
    b: endOf(partId, undefined, pins, 'box'),
    from,
  });
}

/**
 * Links that follow from what is chosen: a controller leads its sets, an inverter calls a set with a two-wire start, feeds and reads
 * a transfer device that has no supply of its own, and holds the rapid shutdown of its strings.
 */
export function layControls(
  laying: Laying,
  given: Given,
  arrays: readonly CompiledArray[],
  controllers: readonly CompiledController[],
): void {
  for (const { controller, type } of controllers)
    for (const stackId of controller.stackIds) {
      const set = given.stacks.find(({ stack }) => stack.id === stackId);
      if (set === undefined) continue;
      laying.links.push({
        id: `controller-bus ${controller.id} ${stackId}`,
        kind: 'controller-bus',
        a: endOf(`controller ${controller.id}`, 'set bus', type.known ? type.value.commsPins : undefined),
        b: endOf(hostOf(set), 'controller', pinsOfSet(set)),
        from: ['controllers', controller.id, 'stackIds'],
      });
    }
  for (const { generator, type } of given.generators) {
    const set = given.stacks.find(({ stack }) => stack.id === generator.stackId);
    if (set === undefined || !type.known || type.value.start !== 'two-wire') continue;
    laying.links.push({
      id: `dry-contact ${generator.id}`,
      kind: 'dry-contact',
      a: endOf(hostOf(set), 'generator start', pinsOfSet(set)),
      b: { partId: `generator ${generator.id}`, socket: 'two-wire start' },
      from: ['generators', generator.id],
    });
  }
  for (const set of given.stacks) {
    layBox(laying, set, {
      partId: `bar ${set.stack.id}`,
      pins: set.bar.known && set.bar.value !== 'none' ? set.bar.value.commsPins : undefined,
      from: ['stacks', set.stack.id, 'bank', 'barTypeId'],
    });
    const device = set.transferDevice.known ? set.transferDevice.value : undefined;
    const partId = `transfer ${set.stack.id}`;
    if (device === undefined || device === 'none' || !laying.parts.some(({ id }) => id === partId)) continue;
    const from: Path = ['stacks', set.stack.id, 'transferDeviceTypeId'];
    layBox(laying, set, { partId, pins: device.commsPins, from });
    if (device.controlSupply !== 'from-inverter') continue;
    laying.links.push({
      id: `control-supply ${set.stack.id}`,
      kind: 'control-supply',
      a: endOf(hostOf(set), 'transfer control', pinsOfSet(set)),
      b: { partId, socket: 'control' },
      from,
    });
  }
  for (const { array } of arrays) {
    const [first] = array.places ?? [];
    if (array.rapidShutdown !== 'fitted' || first === undefined) continue;
    const set = given.stacks.find(({ stack }) => stack.id === first.stackId);
    laying.links.push({
      id: `shutdown-link ${array.id}`,
      kind: 'shutdown-link',
      a: endOf(unitPartId(first.stackId, first.unitId), 'rapid shutdown', pinsOfSet(set)),
      b: { partId: `array ${array.id}`, socket: 'rapid shutdown' },
      from: ['arrays', array.id, 'rapidShutdown'],
    });
  }
}
