import { type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { CompiledStack } from '../installation.ts';
import { MODE_KINDS, type ModeKind } from '../modeKinds.ts';
import type { Port } from '../network.ts';
import type { Given } from './given.ts';
import { closedIn, type Laying, neutralPole, takesOf } from './laying.ts';
import { deviceBehind } from './lines.ts';
import { buildingNames, deviceNames } from './service.ts';
import { layRelay } from './relay.ts';
import { type LaidUnit, layUnit } from './units.ts';

/** A set as it is laid: its units, and the bar that each of its outputs leads to. */
export interface LaidSet {
  readonly compiled: CompiledStack;
  readonly units: readonly LaidUnit[];
  /** Where its partitions are fed from, by the id of the output; '' for the main one. */
  readonly feeds: ReadonlyMap<string, Port>;
}

const but = (...modes: readonly ModeKind[]): ReturnType<typeof closedIn> =>
  closedIn(...MODE_KINDS.filter((mode) => !modes.includes(mode)));

/** Whether a changeover that the stack names is the one a generator comes through. */
export const isGeneratorSwitch = ({ design }: Given, stackId: string): boolean =>
  design.generators.some(
    (one) =>
      one.stackId === stackId &&
      one.connection === 'transfer-switch' &&
      one.transferDeviceTypeId === undefined,
  );

/** The bar on which the outputs of a set are paralleled, each behind its own device. */
function layBus(
  laying: Laying,
  given: Given,
  compiled: CompiledStack,
  units: readonly LaidUnit[],
  outputId: string,
  name: string,
): Port | undefined {
  const { stack } = compiled;
  const reaching = units.flatMap((one) => {
    const output = one.outputs.find((found) => found.outputId === outputId);
    return output === undefined ? [] : [{ ...one, port: output.port }];
  });
  if (reaching.length === 0) return undefined;
  const part = laying.part({
    id: `bus ${stack.id} ${outputId}`,
    kind: 'ac-bus',
    label: name,
    from: ['stacks', stack.id],
    stackId: stack.id,
  });
  const bus = laying.port(part, 'bus', buildingNames(given));
  for (const { unit, port, part: inverter } of reaching) {
    const from: Path = ['stacks', stack.id, 'units', unit.id, 'acLead'];
    const behind = deviceBehind(laying, port, {
      id: `unit-output ${inverter.id} ${outputId}`,
      label: `output device of ${inverter.label}`,
      role: 'unit-output',
      of: { stackId: stack.id, unitId: unit.id },
      devices: given.design.devices,
      find: given.find,
      closed: but('maintenance-bypass'),
      cable: {
        from,
        lengthM:
          unit.acLead?.lengthM === undefined ? unknownAt([...from, 'lengthM']) : known(unit.acLead.lengthM),
        areaMm2:
          unit.acLead?.areaMm2 === undefined ? unknownAt([...from, 'areaMm2']) : known(unit.acLead.areaMm2),
      },
      more: { stackId: stack.id, unitId: unit.id },
    });
    laying.run(behind, bus, { use: 'ac', from });
  }
  return bus;
}

/** The neutral that an autotransformer makes from two lines. */
function layAutotransformer(laying: Laying, given: Given, compiled: CompiledStack, bus: Port): void {
  const { stack, autotransformer } = compiled;
  if (stack.arrangement !== 'split-phase-autotransformer') return;
  const from: Path = ['stacks', stack.id, 'autotransformerTypeId'];
  const type = autotransformer.known && autotransformer.value !== 'none' ? autotransformer.value : undefined;
  const part = laying.part({
    id: `autotransformer ${stack.id}`,
    kind: 'autotransformer',
    label: 'autotransformer',
    from,
    stackId: stack.id,
    ...(type === undefined ? {} : { typeName: type.name }),
  });
  const port = laying.port(part, 'out', buildingNames(given), {
    takes: takesOf(type?.terminals, 'line', from),
  });
  laying.run(bus, port, { use: 'ac', from });
}

/** A transfer device or backup interface between service and backed-up boards. Answers the side that the boards are fed from. */
function layTransfer(laying: Laying, given: Given, compiled: CompiledStack, service: Port, bus: Port): Port {
  const { stack, transferDevice } = compiled;
  if (stack.transferDeviceTypeId === undefined || isGeneratorSwitch(given, stack.id)) return bus;
  const from: Path = ['stacks', stack.id, 'transferDeviceTypeId'];
  const type = transferDevice.known && transferDevice.value !== 'none' ? transferDevice.value : undefined;
  const part = laying.part({
    id: `transfer ${stack.id}`,
    kind: 'transfer-device',
    label: 'transfer device',
    from,
    stackId: stack.id,
    ...(type === undefined ? {} : { typeName: type.name, rating: `${type.ratedA} A` }),
  });
  const names = deviceNames(given, type?.lines);
  const takes = takesOf(type?.terminals, 'line', from);
  const normal = laying.port(part, 'normal', names, { label: 'grid side', takes });
  const alternate = laying.port(part, 'alternate', names, { label: 'inverter side', takes });
  const common = laying.port(part, 'common', names, { label: 'load side', takes });
  laying.run(service, normal, { use: 'ac', from });
  laying.run(bus, alternate, { use: 'ac', from });
  const neutral: Known<'solid' | 'switched'> = type === undefined ? unknownAt(from) : known(type.neutral);
  const onGrid = closedIn('on-grid');
  const onInverter = closedIn('island', 'unit-lost', 'generator-port', 'transfer-switch', 'generator-inlet');
  laying.poles(normal, common, { lines: onGrid, neutral: neutralPole(neutral, onGrid) });
  laying.poles(alternate, common, { lines: onInverter, neutral: neutralPole(neutral, onInverter) });
  laying.interlocks.push({
    id: `interlock ${part.id}`,
    partId: part.id,
    what: 'grid side and inverter side of the transfer device',
    held: type === undefined ? unknownAt(from) : known(type.interlocked === 'yes'),
    from,
  });
  // What the device feeds is a bar of its own, where a bypass can join behind it.
  const bar = laying.part({
    id: `loads ${stack.id}`,
    kind: 'ac-bus',
    label: 'load side',
    from,
    stackId: stack.id,
  });
  const loads = laying.port(bar, 'bus', names);
  laying.run(common, loads, { use: 'ac', from });
  return loads;
}

/** A maintenance bypass from the service board straight to the backed-up side. */
function layBypass(laying: Laying, given: Given, compiled: CompiledStack, service: Port, loads: Port): void {
  const { site } = given.design;
  if (site.maintenanceBypass !== 'yes' || site.grid === 'none') return;
  const { stack } = compiled;
  const from: Path = ['site', 'maintenanceBypass'];
  const part = laying.part({
    id: `bypass ${stack.id}`,
    kind: 'bypass',
    label: 'maintenance bypass',
    from,
    stackId: stack.id,
  });
  const names = buildingNames(given);
  const inPort = laying.port(part, 'in', names);
  const outPort = laying.port(part, 'out', names);
  laying.run(service, inPort, { use: 'ac', from });
  laying.run(outPort, loads, { use: 'ac', from });
  const lines = closedIn('maintenance-bypass');
  const rule: Known<'solid' | 'switched'> =
    site.bypassNeutral === undefined ? unknownAt(['site', 'bypassNeutral']) : known(site.bypassNeutral);
  laying.poles(inPort, outPort, { lines, neutral: neutralPole(rule, lines) });
  laying.interlocks.push({
    id: `interlock ${part.id}`,
    partId: part.id,
    what: 'maintenance bypass and inverter output',
    held:
      site.bypassInterlocked === undefined
        ? unknownAt(['site', 'bypassInterlocked'])
        : known(site.bypassInterlocked === 'yes'),
    from: ['site', 'bypassInterlocked'],
  });
}

/** Lays one set from its grid ports to the point its boards are fed from. */
export function layOutputs(laying: Laying, given: Given, compiled: CompiledStack, service: Port): LaidSet {
  const { stack, type } = compiled;
  const units = stack.units.map((unit) => layUnit(laying, given, compiled, unit));
  const outputIds = [...new Set(units.flatMap(({ outputs }) => outputs.map(({ outputId }) => outputId)))];
  const feeds = new Map<string, Port>();
  outputIds.forEach((outputId, index) => {
    const named = type.known ? type.value.outputs?.find(({ id }) => id === outputId)?.name : undefined;
    const bus = layBus(
      laying,
      given,
      compiled,
      units,
      outputId,
      `${named ?? 'backup output'} of ${stack.name}`,
    );
    if (bus === undefined) return;
    if (index > 0) {
      feeds.set(outputId, bus);
      return;
    }
    layAutotransformer(laying, given, compiled, bus);
    layRelay(laying, compiled, units, bus, given.design.generators);
    const loads = layTransfer(laying, given, compiled, service, bus);
    layBypass(laying, given, compiled, service, loads);
    feeds.set('', loads);
    if (outputId !== '') feeds.set(outputId, loads);
  });
  const sources = units.filter(({ outputs }) => outputs.length > 0).map(({ part }) => part.id);
  if (sources.length > 1) laying.inStep.push({ sources, modes: MODE_KINDS });
  return { compiled, units, feeds };
}
