import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Joining, Module, Stack, Unit } from '../../installation/facts.ts';
import type { BatteryDevice } from '../../installation/installation.ts';
import type { ResistiveNetwork } from '../../network/resistive.ts';
import { type Branch, type BranchDevice, type Cell, type Laid, layBank, type Slot } from './bankLay.ts';
import type { FindBattery } from './bank.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import {
  type LeadInputs,
  leadOf,
  linkLength,
  type Pole,
  segmentOhm,
  toBankLength,
  toBarLength,
} from './bankLeads.ts';

/** A module as a source in the network. */
export interface CircuitModule {
  readonly id: string;
  /** Counted from 1, as it is labelled. */
  readonly number: number;
  readonly type: BatteryType;
  /** Its source in the network. */
  readonly source: number;
  readonly emfV: number;
  /** Inner resistance, and leads where they lie in series with it. */
  readonly ohm: number;
  /** Length of one pole of its lead: to its bar, or on to the next of its chain; none at the end of a chain. */
  readonly leadM: number | undefined;
}

/** An inverter's place on the bank. */
export interface CircuitTap {
  readonly unitId: string;
  readonly plus: number;
  readonly minus: number;
  /** Both poles with their lugs, and its breaker. */
  readonly leadOhm: number;
  /** Length of one pole. */
  readonly leadM: number;
}

/** The bank as a network of resistances, with the places where inverters draw from it. */
export interface BankCircuit {
  readonly network: ResistiveNetwork;
  readonly modules: readonly CircuitModule[];
  readonly taps: readonly CircuitTap[];
  /** Its resistances by name. */
  readonly branches: readonly Branch[];
}

interface Inputs extends LeadInputs {
  readonly findType: FindBattery;
  /** The device of the bank, where one is named. */
  readonly breaker: Known<ProtectiveDeviceType>;
  /** Devices that the design lists on this bank. */
  readonly devices: readonly BatteryDevice[];
}

const MILLI = 1e-3;
const POLES = 2;

/** Resting voltage of a module at a state of charge, straight between the points of its type. */
export function restingV(type: BatteryType, soc: number): number | undefined {
  const points = type.openCircuit;
  const [first] = points ?? [];
  if (points === undefined || first === undefined) return undefined;
  if (soc <= first.soc) return first.voltageV;
  for (let at = 1; at < points.length; at += 1) {
    const low = points[at - 1];
    const high = points[at];
    if (low === undefined || high === undefined || soc > high.soc) continue;
    return low.voltageV + ((high.voltageV - low.voltageV) * (soc - low.soc)) / (high.soc - low.soc);
  }
  return points.at(-1)?.voltageV;
}

/** A module with its voltage and inner resistance. Where states of charge are stated for some, they are needed for all. */
function cellOf(inputs: Inputs, module: Module, number: number, byCharge: boolean): Known<Cell> {
  const bankPath = ['stacks', inputs.stack.id, 'bank'];
  const path = [...bankPath, 'modules', module.id];
  const typeId = module.batteryTypeId ?? inputs.bank.batteryTypeId;
  const typePath =
    module.batteryTypeId === undefined ? [...bankPath, 'batteryTypeId'] : [...path, 'batteryTypeId'];
  const given = all({
    type: inputs.findType(typeId, typePath),
    soc: byCharge ? field(module.stateOfCharge, ...path, 'stateOfCharge') : known(0),
  });
  if (!given.known) return given;
  const { type, soc } = given.value;
  const emfV = byCharge ? restingV(type, soc) : type.nominalV;
  if (emfV === undefined) return unknownAt(['types', type.id, 'openCircuit']);
  if (type.internalMilliohm === undefined) return unknownAt(['types', type.id, 'internalMilliohm']);
  return known({
    module,
    number,
    type,
    emfV,
    innerOhm: type.internalMilliohm * MILLI * (module.resistanceFactor ?? 1),
  });
}

/** All of a list, or everything that is missing in it. */
function every<T>(list: readonly Known<T>[]): Known<readonly T[]> {
  const missing = list.flatMap((one) => (one.known ? [] : one.missing));
  return missing.length > 0
    ? unknownAt(...missing)
    : known(list.flatMap((one) => (one.known ? [one.value] : [])));
}

const isChain = (joining: Joining): boolean => joining === 'chain-same-end' || joining === 'chain-diagonal';

const NO_LEAD: Pole = { ohm: 0, lengthM: 0, areaMm2: Infinity, areaPath: [] };

/** Number of modules that stand in one chain. */
const chained = ({ bank }: Inputs, joining: Joining): number =>
  joining === 'groups-on-bar' ? (bank.groupSize ?? 1) : bank.modules.length;

/** The fitted module that a lead leads on to, in the same chain. */
function nextInChain({ bank }: Inputs, index: number, size: number): Module | undefined {
  const end = (Math.floor(index / size) + 1) * size;
  return bank.modules.slice(index + 1, end).find(({ fitted }) => fitted !== 'taken-out');
}

/** The lead that leaves each module: to its bar, or on to the next of its chain; none at the end of one. */
function leadAt(inputs: Inputs, joining: Joining, module: Module, index: number): Known<Pole> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  const isBars = joining === 'bars-equal' || joining === 'bars-given';
  const next = nextInChain(inputs, index, chained(inputs, joining));
  // A taken-out module and the end of a chain have no lead; on the wall such a one has no route either.
  if (module.fitted === 'taken-out') return known(NO_LEAD);
  if (!isBars && next === undefined && (bank.lengthsFrom === 'wall' || bank.modules.length === 1))
    return known(NO_LEAD);
  const wallM = isBars ? toBarLength(inputs, module) : next && linkLength(inputs, module, next);
  const ownPath = [...path, 'modules', module.id, 'lead'];
  return joining === 'bars-given' && module.lead === undefined && wallM === undefined
    ? unknownAt(ownPath)
    : leadOf(inputs, module.lead, ownPath, bank.lead, [...path, 'lead'], wallM);
}

/** A device of the design in a branch, with its resistance: of its type, else as planned. */
function branchDevice(
  { devices, defaults }: Inputs,
  is: (device: BatteryDevice) => boolean,
): BranchDevice | undefined {
  const found = devices.find((device) => is(device) && device.fitted !== 'none');
  return found === undefined
    ? undefined
    : {
        ohm: (found.milliohm ?? defaults.breakerMilliohm.value) * MILLI,
        ratedA: found.ratedA,
        path: found.path,
      };
}

function slotsOf(inputs: Inputs, joining: Joining, cells: ReadonlyMap<string, Cell>): Known<readonly Slot[]> {
  return every(
    inputs.bank.modules.map((module, index) =>
      mapKnown(leadAt(inputs, joining, module, index), (lead): Slot => ({
        number: index + 1,
        cell: cells.get(module.id),
        lead,
        device: branchDevice(inputs, (one) => one.role === 'battery-module' && one.moduleId === module.id),
      })),
    ),
  );
}

/** The leads of each group, by its number: of its own where it has some. */
function groupLeads(inputs: Inputs, groups: number): Known<readonly Pole[]> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  return every(
    Array.from({ length: groups }, (_, index) => {
      const own = bank.groups?.find(({ number }) => number === index + 1);
      return leadOf(
        inputs,
        own?.lead,
        own === undefined ? [...path, 'groupLead'] : [...path, 'groups', own.id, 'lead'],
        bank.groupLead,
        [...path, 'groupLead'],
      );
    }),
  );
}

function lay(
  inputs: Inputs,
  joining: Joining,
  cells: readonly Cell[],
): Known<Laid & { readonly slots: readonly Slot[] }> {
  const { stack, bank, bar } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  const onBar = !isChain(joining);
  const byGroups = joining === 'groups-on-bar';
  const groupSize = byGroups ? field(bank.groupSize, ...path, 'groupSize') : known(1);
  const groups = groupSize.known ? Math.ceil(bank.modules.length / groupSize.value) : 0;
  const given = all({
    slots: slotsOf(inputs, joining, new Map(cells.map((cell) => [cell.module.id, cell]))),
    segmentOhm: onBar ? segmentOhm(inputs) : known(0),
    groupSize,
    groupLeads: byGroups ? groupLeads(inputs, groups) : known<readonly Pole[]>([]),
  });
  if (!given.known) return given;
  const { slots } = given.value;
  const laid = layBank({
    slots,
    joining,
    segmentOhm: given.value.segmentOhm,
    barRatedA: bar.known && bar.value !== 'none' ? known(bar.value.ratedA) : undefined,
    barPath: bank.barTypeId === undefined ? [...path, 'barSegment'] : [...path, 'barTypeId'],
    groupSize: given.value.groupSize,
    groupLead: (group) => given.value.groupLeads[group - 1] ?? NO_LEAD,
    groupDevice: (group) =>
      branchDevice(inputs, (one) => one.role === 'battery-group' && one.group === group),
    isSameEnd: bank.groupTakeOff === 'same-end',
    leastPlaces: onBar ? Math.max(0, ...stack.units.map((unit) => unit.barPlace ?? 0)) : 0,
  });
  return known({ ...laid, slots });
}

/** With one inverter on the bank its device lies in the leads; with several each has one of its own, taken as planned. */
function breakerMilliohm({ stack, breaker, defaults, devices }: Inputs, unitId: string): number {
  const listed = devices.find((one) => one.role === 'battery-unit' && one.unitId === unitId);
  if (listed?.fitted === 'none') return 0;
  const shared =
    (stack.units.length === 1 || isOwnBank(stack)) && breaker.known ? breaker.value.milliohm : undefined;
  return listed?.milliohm ?? shared ?? defaults.breakerMilliohm.value;
}

function tapOf(inputs: Inputs, joining: Joining, laid: Laid, unit: Unit): Known<CircuitTap> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id];
  const unitPath = [...path, 'units', unit.id];
  const lead = leadOf(
    inputs,
    unit.batteryLead,
    [...unitPath, 'batteryLead'],
    bank.inverterLead,
    [...path, 'bank', 'inverterLead'],
    toBankLength(inputs, unit),
  );
  const place =
    isChain(joining) || laid.places.length === 1 ? known(1) : field(unit.barPlace, ...unitPath, 'barPlace');
  const given = all({ lead, place });
  if (!given.known) return given;
  const at = laid.places[given.value.place - 1];
  const end = joining === 'chain-diagonal' ? laid.places.at(-1) : at;
  if (at === undefined || end === undefined) return unknownAt([...unitPath, 'barPlace']);
  return known({
    unitId: unit.id,
    plus: at.plus,
    minus: end.minus,
    leadOhm: POLES * given.value.lead.ohm + breakerMilliohm(inputs, unit.id) * MILLI,
    leadM: given.value.lead.lengthM,
  });
}

/** Whether states of charge are stated one by one: modules then stand at the voltages of those. */
export const hasStatedCharge = ({ bank }: Pick<Stack, 'bank'>): boolean =>
  typeof bank === 'object' && bank.modules.some(({ stateOfCharge }) => stateOfCharge !== undefined);

/**
 * The bank as a network: modules as sources with inner resistance, leads and bars on both poles, lugs, and the breakers of the
 * inverters. A module that is taken out leaves its place empty; in a chain its neighbours are joined by the lead before it. 'one string'
 * where modules stand in series and have nobody to share with.
 */
export function bankCircuit(inputs: Inputs): Known<BankCircuit | 'one string'> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  const type = inputs.findType(bank.batteryTypeId, [...path, 'batteryTypeId']);
  if (type.known && type.value.joining === 'series') return known('one string');
  const byCharge = hasStatedCharge({ bank });
  const fitted = bank.modules
    .map((module, index) => ({ module, number: index + 1 }))
    .filter(({ module }) => module.fitted !== 'taken-out');
  const isAlone = bank.modules.length === 1 || (fitted.length === 1 && bank.joining === undefined);
  const given = all({
    joining: isAlone ? known<Joining>('chain-same-end') : field(bank.joining, ...path, 'joining'),
    cells: every(fitted.map(({ module, number }) => cellOf(inputs, module, number, byCharge))),
  });
  if (!given.known) return given;
  const { joining, cells } = given.value;
  if (cells.length === 0) return unknownAt([...path, 'modules']);
  const laid = lay(inputs, joining, cells);
  if (!laid.known) return laid;
  const taps = every(stack.units.map((unit) => tapOf(inputs, joining, laid.value, unit)));
  if (!taps.known) return taps;
  const { nodeCount, resistors, sources, branches, slots } = laid.value;
  const size = chained(inputs, joining);
  return known({
    network: { nodeCount, resistors, sources },
    branches,
    modules: laid.value.cells.map((cell, source) => {
      const hasLead = !isChain(joining) && joining !== 'groups-on-bar';
      const leads = hasLead || nextInChain(inputs, cell.number - 1, size) !== undefined;
      return {
        id: cell.module.id,
        number: cell.number,
        type: cell.type,
        source,
        emfV: cell.emfV,
        ohm: sources[source]?.ohm ?? cell.innerOhm,
        leadM: leads ? slots[cell.number - 1]?.lead.lengthM : undefined,
      };
    }),
    taps: taps.value,
  });
}
