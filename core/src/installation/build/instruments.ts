import type { Path } from '../../values/problem.ts';
import type { CompiledController } from '../installation.ts';
import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import type { LaidSet } from './outputs.ts';
import { unitPartId } from './units.ts';

const PLACE_WORDS = {
  service: 'at the service',
  'grid-port': 'at the grid port',
  'backed-up-board': 'at the backed-up board',
  generator: 'at the generator',
  array: 'at the array',
} as const;

/** Controllers with their meters, and the meters and sensors that sets read by themselves; each with its link. */
export function layInstruments(
  laying: Laying,
  given: Given,
  sets: readonly LaidSet[],
  controllers: readonly CompiledController[],
): void {
  for (const { controller, type } of controllers) {
    const from: Path = ['controllers', controller.id];
    const part = laying.part({
      id: `controller ${controller.id}`,
      kind: 'controller',
      label: controller.name,
      from,
      ...(type.known ? { typeName: type.value.name } : {}),
    });
    for (const meter of controller.meters) {
      const at: Path = [...from, 'meters', meter.id];
      const meterType = given.find('meter', meter.typeId, [...at, 'typeId']);
      const one = laying.part({
        id: `meter ${controller.id}/${meter.id}`,
        kind: 'meter',
        label: `${meter.role} meter`,
        from: at,
        ...(meterType.known ? { typeName: meterType.value.name } : {}),
      });
      laying.links.push({
        id: `${part.id} – ${one.id}`,
        kind: 'meter-bus',
        a: { partId: part.id, socket: 'meter bus' },
        b: { partId: one.id, socket: 'bus' },
        from: at,
      });
    }
  }
  for (const instrument of given.design.instruments) {
    const from: Path = ['instruments', instrument.id];
    const type = given.find(instrument.kind, instrument.typeId, [...from, 'typeId']);
    const where = instrument.at === undefined ? '' : ` ${PLACE_WORDS[instrument.at]}`;
    const part = laying.part({
      id: `instrument ${instrument.id}`,
      kind: instrument.kind,
      label:
        instrument.name ??
        `${instrument.kind}${where}${instrument.line === undefined ? '' : ` on ${instrument.line}`}`,
      from,
      ...(type.known ? { typeName: type.value.name } : {}),
    });
    const set = sets.find(({ compiled }) => compiled.stack.id === instrument.readBy);
    const reader = set?.units.find(({ unit }) => unit.id === instrument.readByUnitId) ?? set?.units[0];
    if (reader !== undefined)
      laying.links.push({
        id: `${reader.part.id} – ${part.id}`,
        kind: instrument.kind === 'sensor' ? 'sensor-pair' : 'meter-bus',
        a: { partId: reader.part.id, socket: instrument.kind === 'sensor' ? 'sensor' : 'meter' },
        b: { partId: part.id, socket: 'leads' },
        from,
      });
  }
}

/** The cables of parallel and battery bus as they are plugged. */
export function layBuses(laying: Laying, sets: readonly LaidSet[]): void {
  for (const { compiled } of sets) {
    const { stack } = compiled;
    for (const link of stack.busLinks ?? [])
      laying.links.push({
        id: `parallel-bus ${stack.id} ${link.id}`,
        kind: 'parallel-bus',
        a: { partId: unitPartId(stack.id, link.fromUnitId), socket: link.fromPort },
        b: { partId: unitPartId(stack.id, link.toUnitId), socket: link.toPort },
        from: ['stacks', stack.id, 'busLinks', link.id],
      });
    const { bank } = stack;
    if (typeof bank !== 'object') continue;
    const host = stack.hostUnitId ?? stack.units[0]?.id;
    for (const link of bank.comms?.links ?? [])
      laying.links.push({
        id: `battery-bus ${stack.id} ${link.id}`,
        kind: 'battery-bus',
        a: {
          partId: link.from === 'host' ? unitPartId(stack.id, host ?? '') : `module ${stack.id}/${link.from}`,
          socket: link.fromPort,
        },
        b: { partId: `module ${stack.id}/${link.to}`, socket: link.toPort },
        from: ['stacks', stack.id, 'bank', 'comms', 'links', link.id],
      });
  }
}
