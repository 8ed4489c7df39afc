import type { TransferDeviceType } from '../../catalogue/sourceTypes.ts';
import { all, field, mapKnown } from '../../values/known.ts';
import type { FedAlone, Part, Port, TerminalName } from '../network.ts';
import { backedUpBars } from './boards.ts';
import type { Given } from './given.ts';
import { switchType } from './gridSide.ts';
import { type Laying, takesOf } from './laying.ts';
import { deviceBehind } from './lines.ts';
import { hostOf } from './links.ts';

type Supplied = TransferDeviceType & { readonly controlSupply: 'from-inverter' | 'from-board' };

const isSupplied = (type: TransferDeviceType): type is Supplied =>
  type.controlSupply === 'from-inverter' || type.controlSupply === 'from-board';

const fedOf = ({
  id,
  controlSupply,
  controlCurrent,
  controlVa,
  controlV,
  controlDeviceA,
}: Supplied): FedAlone => ({
  what: 'controls',
  takesVa: field(controlVa, 'types', id, 'controlVa'),
  // Whether it is AC or DC decides what the cable loses: without it nothing can be said of it.
  volts:
    controlSupply === 'from-board'
      ? undefined
      : mapKnown(
          all({
            volts: field(controlV, 'types', id, 'controlV'),
            current: field(controlCurrent, 'types', id, 'controlCurrent'),
          }),
          ({ volts }) => volts,
        ),
  mostDeviceA: controlDeviceA,
  mostDevicePath: ['types', id, 'controlDeviceA'],
});

/** Where the controls are fed from: the bars of a backed-up board, or an output of the inverter that speaks for the set. */
function sourceOf(laying: Laying, given: Given, stackId: string, type: Supplied): Port | undefined {
  if (type.controlSupply === 'from-board') {
    // Without a board that stays on there is still the bar that the device itself feeds.
    const bars =
      backedUpBars(laying, given.design, [stackId]) ??
      laying.ports.find(({ partId, role }) => role === 'bus' && partId === `loads ${stackId}`);
    const line = bars?.terminals.find(({ name }) => name !== 'N' && name !== 'PE');
    return bars && { ...bars, terminals: bars.terminals.filter((one) => one === line || one.name === 'N') };
  }
  const set = given.stacks.find(({ stack }) => stack.id === stackId);
  const unit = set && laying.parts.find(({ id }) => id === hostOf(set));
  if (set === undefined || unit === undefined) return undefined;
  const names: TerminalName[] = type.controlCurrent === 'dc' ? ['DC+', 'DC−'] : ['L1', 'N'];
  const terminals = set.type.known ? set.type.value.terminals : undefined;
  return laying.port(unit, 'control', names, {
    label: 'control output',
    takes: takesOf(terminals, 'control', unit.from),
  });
}

/** The cable that feeds the controls of a transfer device which has no supply of its own, behind a device of its own. */
function laySupply(
  laying: Laying,
  given: Given,
  part: Part,
  stackId: string,
  type: TransferDeviceType,
): void {
  if (!isSupplied(type)) return;
  const source = sourceOf(laying, given, stackId, type);
  if (source === undefined) return;
  const use = type.controlSupply === 'from-board' ? 'ac' : 'control';
  const of = part.generatorId === undefined ? { stackId } : { generatorId: part.generatorId };
  const fed = fedOf(type);
  const behind = deviceBehind(laying, source, {
    id: `device of controls ${part.id}`,
    label: `device of the controls of the ${part.label}`,
    role: 'control-device',
    of,
    devices: given.design.devices,
    find: given.find,
    use,
    more: { ...of, fed },
  });
  const own = laying.port(
    part,
    'control',
    source.terminals.map(({ name }) => name),
    { label: 'controls', takes: takesOf(type.terminals, 'control', ['types', type.id]), fed },
  );
  laying.run(behind, own, { use, from: part.from });
}

/** The supply of the controls of every transfer device, of sets and of generators. */
export function layControlSupplies(laying: Laying, given: Given): void {
  for (const part of laying.parts.filter(({ kind }) => kind === 'transfer-device')) {
    const generator = given.generators.find((one) => one.generator.id === part.generatorId);
    const set = given.stacks.find(({ stack }) => stack.id === part.stackId);
    const stackId = part.stackId ?? generator?.generator.stackId;
    const type = generator === undefined ? set?.transferDevice : switchType(given, generator);
    if (stackId === undefined || type?.known !== true || type.value === 'none') continue;
    laySupply(laying, given, part, stackId, type.value);
  }
}
