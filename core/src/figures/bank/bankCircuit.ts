import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { ProtectiveDeviceType } from '../../catalogue/partTypes.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Joining, Module, Unit } from '../../installation/facts.ts';
import type { Resistor, ResistiveNetwork, Source } from '../../network/resistive.ts';
import type { FindBattery } from './bank.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import {
  type LeadInputs,
  leadOf,
  linkLength,
  placed,
  type Pole,
  poleOf,
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
}

interface Inputs extends LeadInputs {
  readonly findType: FindBattery;
  /** The device of the bank, where one is named. */
  readonly breaker: Known<ProtectiveDeviceType>;
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

interface Cell {
  readonly module: Module;
  readonly number: number;
  readonly type: BatteryType;
  readonly emfV: number;
  readonly innerOhm: number;
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

/** Places where the network can be tapped, with the sources and resistors that make it. */
interface Laid {
  readonly nodeCount: number;
  readonly resistors: readonly Resistor[];
  readonly sources: readonly Source[];
  /** Positive and negative node of each place, in order. */
  readonly places: readonly { readonly plus: number; readonly minus: number }[];
}

/** Node numbers of a row of pairs from a first number on: plus and minus side by side, so that the band stays narrow. */
const pairAt = (from: number, index: number) => ({ plus: from + 2 * index + 1, minus: from + 2 * index });

/** Modules one after the other; link `i` joins module `i` and the next, on both poles. */
function layChain(cells: readonly Cell[], linkOhm: readonly number[], from: number): Laid {
  const places = cells.map((_, index) => pairAt(from, index));
  const resistors = places.slice(1).flatMap((place, index): Resistor[] => {
    const before = places[index] ?? place;
    const ohm = linkOhm[index] ?? 0;
    return [
      { from: before.plus, to: place.plus, ohm },
      { from: before.minus, to: place.minus, ohm },
    ];
  });
  const sources = cells.map((cell, index): Source => ({
    ...(places[index] ?? pairAt(from, index)),
    emfV: cell.emfV,
    ohm: cell.innerOhm,
  }));
  return { nodeCount: from + 2 * cells.length, resistors, sources, places };
}

/** Each module on both bars by leads of its own, which lie in series with it. */
function layBars(cells: readonly Cell[], ownLeadOhm: readonly number[], segmentOhm: number): Laid {
  const laid = layChain(
    cells,
    cells.map(() => segmentOhm),
    0,
  );
  const sources = laid.sources.map((source, index) => ({
    ...source,
    ohm: source.ohm + POLES * (ownLeadOhm[index] ?? 0),
  }));
  return { ...laid, sources };
}

/** Short chains, each joined to the bar at opposite ends, so that the bar sees them one place after the other. */
function layGroups(
  cells: readonly Cell[],
  groupSize: number,
  linkOhm: readonly number[],
  groupOhm: number,
  segmentOhm: number,
): Laid {
  const resistors: Resistor[] = [];
  const sources: Source[] = [];
  const places: { plus: number; minus: number }[] = [];
  let next = 0;
  for (let first = 0; first < cells.length; first += groupSize) {
    const group = cells.slice(first, first + groupSize);
    const bar = pairAt(next, 0);
    const chain = layChain(group, linkOhm.slice(first), next + 2);
    const before = places.at(-1);
    places.push(bar);
    resistors.push(...chain.resistors);
    sources.push(...chain.sources);
    const [head] = chain.places;
    const tail = chain.places.at(-1);
    if (head !== undefined && tail !== undefined)
      resistors.push(
        { from: bar.plus, to: head.plus, ohm: groupOhm },
        { from: bar.minus, to: tail.minus, ohm: groupOhm },
      );
    if (before !== undefined)
      resistors.push(
        { from: before.plus, to: bar.plus, ohm: segmentOhm },
        { from: before.minus, to: bar.minus, ohm: segmentOhm },
      );
    next = chain.nodeCount;
  }
  return { nodeCount: next, resistors, sources, places };
}

/** A laid bank with the lead of each module. */
interface LaidWithLeads extends Laid {
  readonly leads: readonly Pole[];
}

const ohmsOf = (leads: readonly Pole[]): number[] => leads.map((lead) => lead.ohm);

function lay(inputs: Inputs, joining: Joining, cells: readonly Cell[]): Known<LaidWithLeads> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  const isBars = joining === 'bars-equal' || joining === 'bars-given';
  const leads = every(
    cells.map(({ module }, index) => {
      const next = cells[index + 1];
      const endsGroup = joining === 'groups-on-bar' && (index + 1) % (bank.groupSize ?? 1) === 0;
      // On the wall only leads that exist have a route: the last of a chain leads nowhere.
      if (bank.lengthsFrom === 'wall' && !isBars && (next === undefined || endsGroup))
        return known({ ohm: 0, lengthM: 0 });
      const wallM = isBars ? toBarLength(inputs, module) : next && linkLength(inputs, module, next.module);
      const ownPath = [...path, 'modules', module.id, 'lead'];
      return joining === 'bars-given' && module.lead === undefined && wallM === undefined
        ? unknownAt(ownPath)
        : leadOf(inputs, module.lead, ownPath, bank.lead, [...path, 'lead'], wallM);
    }),
  );
  // The lead of a module in a chain is the one that leads on to the next: the last has none.
  const links = cells.length === 1 && joining.startsWith('chain') ? known<Pole[]>([]) : leads;
  switch (joining) {
    case 'chain-same-end':
    case 'chain-diagonal':
      return links.known ? known({ ...layChain(cells, ohmsOf(links.value), 0), leads: links.value }) : links;
    case 'bars-equal':
    case 'bars-given': {
      const given = all({ leads, segmentOhm: segmentOhm(inputs) });
      return given.known
        ? known({
            ...layBars(cells, ohmsOf(given.value.leads), given.value.segmentOhm),
            leads: given.value.leads,
          })
        : given;
    }
    case 'groups-on-bar': {
      const given = all({
        leads,
        segmentOhm: segmentOhm(inputs),
        groupSize: field(bank.groupSize, ...path, 'groupSize'),
        groupLead:
          bank.groupLead === undefined
            ? unknownAt([...path, 'groupLead'])
            : poleOf(inputs, placed(bank.groupLead, [...path, 'groupLead'])),
      });
      if (!given.known) return given;
      const { groupSize, groupLead } = given.value;
      return known({
        ...layGroups(cells, groupSize, ohmsOf(given.value.leads), groupLead.ohm, given.value.segmentOhm),
        leads: given.value.leads,
      });
    }
  }
}

/** With one inverter on the bank its device lies in the leads; with several each has one of its own, taken as planned. */
const breakerMilliohm = ({ stack, breaker, defaults }: Inputs): number =>
  ((stack.units.length === 1 || isOwnBank(stack)) && breaker.known ? breaker.value.milliohm : undefined) ??
  defaults.breakerMilliohm.value;

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
  const isChain = joining === 'chain-same-end' || joining === 'chain-diagonal';
  const place =
    isChain || laid.places.length === 1 ? known(1) : field(unit.barPlace, ...unitPath, 'barPlace');
  const given = all({ lead, place });
  if (!given.known) return given;
  const at = laid.places[given.value.place - 1];
  const end = joining === 'chain-diagonal' ? laid.places.at(-1) : at;
  if (at === undefined || end === undefined) return unknownAt([...unitPath, 'barPlace']);
  return known({
    unitId: unit.id,
    plus: at.plus,
    minus: end.minus,
    leadOhm: POLES * given.value.lead.ohm + breakerMilliohm(inputs) * MILLI,
    leadM: given.value.lead.lengthM,
  });
}

/**
 * The bank as a network: modules as sources with inner resistance, leads and bars on both poles, lugs, and the breakers of the
 * inverters. Modules that are taken out are left out; in a chain their neighbours are joined by their own lead. 'one string'
 * where modules stand in series and have nobody to share with.
 */
export function bankCircuit(inputs: Inputs): Known<BankCircuit | 'one string'> {
  const { stack, bank } = inputs;
  const path = ['stacks', stack.id, 'bank'];
  const type = inputs.findType(bank.batteryTypeId, [...path, 'batteryTypeId']);
  if (type.known && type.value.joining === 'series') return known('one string');
  const byCharge = bank.modules.some((module) => module.stateOfCharge !== undefined);
  const fitted = bank.modules
    .map((module, index) => ({ module, number: index + 1 }))
    .filter(({ module }) => module.fitted !== 'taken-out');
  const given = all({
    joining: fitted.length === 1 ? known<Joining>('chain-same-end') : field(bank.joining, ...path, 'joining'),
    cells: every(fitted.map(({ module, number }) => cellOf(inputs, module, number, byCharge))),
  });
  if (!given.known) return given;
  const { joining, cells } = given.value;
  if (cells.length === 0) return unknownAt([...path, 'modules']);
  const laid = lay(inputs, joining, cells);
  if (!laid.known) return laid;
  const taps = every(stack.units.map((unit) => tapOf(inputs, joining, laid.value, unit)));
  if (!taps.known) return taps;
  const { nodeCount, resistors, sources } = laid.value;
  const chained = joining === 'groups-on-bar' ? (bank.groupSize ?? 1) : cells.length;
  const endsChain = (at: number): boolean =>
    !joining.startsWith('bars') && ((at + 1) % chained === 0 || at === cells.length - 1);
  return known({
    network: { nodeCount, resistors, sources },
    modules: cells.map((cell, source) => ({
      id: cell.module.id,
      number: cell.number,
      type: cell.type,
      source,
      emfV: cell.emfV,
      ohm: sources[source]?.ohm ?? cell.innerOhm,
      leadM: endsChain(source) ? undefined : laid.value.leads[source]?.lengthM,
    })),
    taps: taps.value,
  });
}
