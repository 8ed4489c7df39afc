import type { TransferDeviceType } from '../../catalogue/sourceTypes.ts';
import { type Known, known, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { CompiledGenerator } from '../installation.ts';
import type { Port } from '../network.ts';
import type { Given } from './given.ts';
import { closedIn, type Laying, neutralPole, takesOf } from './laying.ts';
import { MODE_KINDS } from '../modeKinds.ts';
import { deviceBehind } from './lines.ts';
import { type LaidSet } from './outputs.ts';
import { deviceNames } from './service.ts';

/** The transfer switch that a generator comes through: its own, else the one the set names. */
export function switchType(given: Given, { generator }: CompiledGenerator): Known<TransferDeviceType> {
  const own: Path = ['generators', generator.id, 'transferDeviceTypeId'];
  if (generator.transferDeviceTypeId !== undefined)
    return given.find('transfer-device', generator.transferDeviceTypeId, own);
  const set = given.stacks.find(({ stack }) => stack.id === generator.stackId);
  const found = set?.transferDevice;
  return found?.known === true && found.value !== 'none' ? known(found.value) : unknownAt(own);
}

/** The switch that takes the grid ports from the grid to a generator. Answers the side that the units stand on. */
function laySwitch(
  laying: Laying,
  given: Given,
  one: CompiledGenerator,
  upstream: Port,
): { readonly common: Port; readonly alternate: Port } {
  const { generator } = one;
  const from: Path = ['generators', generator.id, 'transferDeviceTypeId'];
  const type = switchType(given, one);
  const part = laying.part({
    id: `generator-switch ${generator.id}`,
    kind: 'transfer-device',
    label: `transfer switch of ${generator.name}`,
    from,
    generatorId: generator.id,
    ...(type.known ? { typeName: type.value.name, rating: `${type.value.ratedA} A` } : {}),
  });
  const names = deviceNames(given, type.known ? type.value.lines : undefined);
  const takes = takesOf(type.known ? type.value.terminals : undefined, 'line', from);
  const normal = laying.port(part, 'normal', names, { label: 'grid side', takes });
  const alternate = laying.port(part, 'alternate', names, { label: 'generator side', takes });
  const common = laying.port(part, 'common', names, { label: 'inverter side', takes });
  laying.run(upstream, normal, { use: 'ac', from });
  const neutral: Known<'solid' | 'switched'> = type.known ? known(type.value.neutral) : type;
  const onGrid = closedIn(...MODE_KINDS.filter((mode) => mode !== 'transfer-switch'));
  const onSet = closedIn('transfer-switch');
  laying.poles(normal, common, { lines: onGrid, neutral: neutralPole(neutral, onGrid) });
  laying.poles(alternate, common, { lines: onSet, neutral: neutralPole(neutral, onSet) });
  laying.interlocks.push({
    id: `interlock ${part.id}`,
    partId: part.id,
    what: `grid side and generator side of the transfer switch of ${generator.name}`,
    held: type.known ? known(type.value.interlocked === 'yes') : type,
    from,
  });
  return { common, alternate };
}

/**
 * From the service board to the grid port of each unit: isolator of the set, transfer switches of generators, device of the unit.
 * Answers the generator side of each of those switches.
 */
export function layGridSide(
  laying: Laying,
  given: Given,
  set: LaidSet,
  service: Port,
): ReadonlyMap<string, Port> {
  const { stack } = set.compiled;
  const switches = new Map<string, Port>();
  const onGrid = set.units.filter(({ grid }) => grid !== undefined);
  if (onGrid.length === 0) return switches;
  let upstream = deviceBehind(laying, service, {
    id: `grid-isolator ${stack.id}`,
    label: given.stacks.length > 1 ? `grid isolator of ${stack.name}` : 'grid isolator',
    role: 'grid-isolator',
    of: { stackId: stack.id },
    devices: given.design.devices,
    find: given.find,
    more: { stackId: stack.id },
  });
  for (const one of given.generators) {
    const { generator } = one;
    if (generator.connection !== 'transfer-switch' || generator.stackId !== stack.id) continue;
    const { common, alternate } = laySwitch(laying, given, one, upstream);
    switches.set(generator.id, alternate);
    upstream = common;
  }
  for (const { unit, part, grid } of onGrid) {
    if (grid === undefined) continue;
    const behind = deviceBehind(laying, upstream, {
      id: `unit-grid ${part.id}`,
      label: `grid device of ${part.label}`,
      role: 'unit-grid',
      of: { stackId: stack.id, unitId: unit.id },
      devices: given.design.devices,
      find: given.find,
      more: { stackId: stack.id, unitId: unit.id },
    });
    laying.run(behind, grid, { use: 'ac', from: part.from });
  }
  return switches;
}
