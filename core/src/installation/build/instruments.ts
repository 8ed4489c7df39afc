import type { MeterType } from '../../catalogue/partTypes.ts';
import { type Known, known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { CompiledController } from '../installation.ts';
import type { FedAlone, LinkEnd, Part, Port, TerminalName } from '../network.ts';
import { backedUpBars } from './boards.ts';
import type { Given } from './given.ts';
import { type Laying, takesOf } from './laying.ts';
import { deviceBehind } from './lines.ts';
import type { LaidSet } from './outputs.ts';
import { endOf, pinsOfSet } from './links.ts';

const PLACE_WORDS = {
  service: 'at the service',
  'grid-port': 'at the grid port',
  'backed-up-board': 'at the backed-up board',
  generator: 'at the generator',
  array: 'at the array',
} as const;

const fedOf = ({ id, supplyVa, supplyDeviceA }: MeterType): { readonly fed?: FedAlone } =>
  typeof supplyVa === 'number'
    ? {
        fed: {
          what: 'meter',
          takesVa: known(supplyVa),
          volts: undefined,
          mostDeviceA: supplyDeviceA,
          mostDevicePath: ['types', id, 'supplyDeviceA'],
        },
      }
    : {};

/** The cable that feeds a meter and shows it the voltage, behind a device of its own; none for a meter that has no such cable. */
function laySupply(
  laying: Laying,
  { design, find, supply }: Given,
  meter: {
    readonly part: Part;
    readonly type: Known<MeterType>;
    readonly of: { readonly controllerId?: string; readonly meterId: string };
    /** The bars that it is fed from. */
    readonly bars: Port | undefined;
  },
): void {
  const { part, type, of, bars } = meter;
  if (!type.known || typeof type.value.supplyVa !== 'number' || bars === undefined) return;
  const lines = supply.lines.slice(0, type.value.lines);
  const names: TerminalName[] = [...lines, 'N'];
  const terminals = bars.terminals.filter(({ name }) => names.includes(name));
  const behind = deviceBehind(
    laying,
    { ...bars, terminals },
    {
      id: `device ${part.id}`,
      label: `device of ${part.label}`,
      role: 'meter-device',
      of,
      devices: design.devices,
      find,
      more: { ...fedOf(type.value), ...of },
    },
  );
  const takes = takesOf(type.value.terminals, 'supply', ['types', type.value.id]);
  const own = laying.port(part, 'supply', names, { takes, ...fedOf(type.value) });
  laying.run(behind, own, { use: 'ac', from: part.from });
}

/** Where the leads of a sensor go at the meter that it is wired to, by the marks of its type; undefined for one that a set reads itself. */
function meterEnd(
  { design, find }: Given,
  { kind, meterId, line }: Given['design']['instruments'][number],
): LinkEnd | undefined {
  const meter = design.instruments.find(({ id }) => id === meterId);
  if (kind !== 'sensor' || meter === undefined) return undefined;
  const type = find('meter', meter.typeId, ['instruments', meter.id, 'typeId']);
  const mark = type.known
    ? type.value.marks?.find(({ takes }) => takes === `sensor-${line ?? ''}`)?.mark
    : undefined;
  return { partId: `instrument ${meter.id}`, socket: mark === undefined ? 'sensor' : `sensor ${mark}` };
}

/** Controllers with their meters, and the meters and sensors that sets read by themselves; each with its link. */
export function layInstruments(
  laying: Laying,
  given: Given,
  sets: readonly LaidSet[],
  controllers: readonly CompiledController[],
  service: Port,
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
    const backedUp = backedUpBars(laying, given.design, controller.stackIds);
    const ends = new Map(
      controller.meters.map((meter): [string, LinkEnd] => {
        const at: Path = [...from, 'meters', meter.id];
        const meterType = given.find('meter', meter.typeId, [...at, 'typeId']);
        const one = laying.part({
          id: `meter ${controller.id}/${meter.id}`,
          kind: 'meter',
          label: `${meter.role} meter`,
          from: at,
          ...(meterType.known ? { typeName: meterType.value.name } : {}),
        });
        laySupply(laying, given, {
          part: one,
          type: meterType,
          of: { controllerId: controller.id, meterId: meter.id },
          bars: meter.role === 'load' ? (backedUp ?? service) : service,
        });
        const pins = meterType.known ? meterType.value.commsPins : undefined;
        return [meter.id, endOf(one.id, undefined, pins, 'bus')];
      }),
    );
    const lastOn = new Map<string, LinkEnd>();
    for (const meter of controller.meters) {
      const own = ends.get(meter.id);
      if (own === undefined) continue;
      const port = meter.port ?? 'meter bus';
      const host = endOf(part.id, port, type.known ? type.value.commsPins : undefined);
      // A bus is one line: where nobody has said otherwise, a meter comes after the one before on its port.
      const before = meter.after === undefined ? lastOn.get(port) : ends.get(meter.after);
      laying.links.push({
        id: `${part.id} – ${own.partId}`,
        kind: 'meter-bus',
        a: before ?? host,
        b: own,
        from: [...from, 'meters', meter.id],
      });
      lastOn.set(port, own);
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
    if (type.known && type.value.kind === 'meter')
      laySupply(laying, given, {
        part,
        type: { known: true, value: type.value },
        of: { meterId: instrument.id },
        bars:
          instrument.at === 'backed-up-board'
            ? (backedUpBars(
                laying,
                given.design,
                instrument.readBy === undefined ? [] : [instrument.readBy],
              ) ?? service)
            : service,
      });
    const readerId = instrument.readByUnitId ?? set?.compiled.stack.hostUnitId;
    const reader = set?.units.find(({ unit }) => unit.id === readerId) ?? set?.units[0];
    const meter = meterEnd(given, instrument);
    if (reader !== undefined || meter !== undefined)
      laying.links.push({
        id: `${meter?.partId ?? reader?.part.id ?? ''} – ${part.id}`,
        kind: instrument.kind === 'sensor' ? 'sensor-pair' : 'meter-bus',
        a: meter ?? endOf(reader?.part.id ?? '', instrument.kind, pinsOfSet(set?.compiled)),
        b:
          type.known && type.value.kind === 'meter'
            ? endOf(part.id, undefined, type.value.commsPins, 'bus')
            : { partId: part.id, socket: 'leads' },
        from,
      });
  }
}
