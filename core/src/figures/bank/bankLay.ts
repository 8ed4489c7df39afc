import type { BatteryType } from '../../catalogue/batteryType.ts';
import type { Joining, Module } from '../../installation/facts.ts';
import type { Resistor, Source } from '../../network/resistive.ts';
import type { Known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import type { Pole } from './bankLeads.ts';

/** A module with its voltage and inner resistance. */
export interface Cell {
  readonly module: Module;
  readonly number: number;
  readonly type: BatteryType;
  readonly emfV: number;
  readonly innerOhm: number;
}

/** A device in one pole of a branch. */
export interface BranchDevice {
  readonly ohm: number;
  readonly ratedA: Known<number>;
  readonly path: Path;
}

/** A place of the list: the module that stands there, if it is fitted, and the lead that leaves it. */
export interface Slot {
  readonly number: number;
  readonly cell: Cell | undefined;
  readonly lead: Pole;
  readonly device: BranchDevice | undefined;
}

export type BranchKind = 'module-lead' | 'link' | 'group-lead' | 'bar' | 'device';

/** A resistance of the bank by name: a lead, a joint with its lugs, a bar segment or a device, with what it may be held against. */
export interface Branch {
  readonly id: string;
  readonly kind: BranchKind;
  readonly label: string;
  /** Where it lies in the network: a resistor, or in series with a source. */
  readonly at: { readonly resistor: number } | { readonly source: number };
  readonly areaMm2?: number;
  /** Of one pole of a lead. */
  readonly lengthM?: number;
  /** The modules that a lead ends at, by id; its other end is at the bars. */
  readonly moduleIds?: readonly string[];
  readonly ratedA?: Known<number>;
  readonly path: Path;
}

/** Places where the network can be tapped, with the sources, resistors and named branches that make it. */
export interface Laid {
  readonly nodeCount: number;
  readonly resistors: Resistor[];
  readonly sources: Source[];
  readonly cells: Cell[];
  readonly branches: Branch[];
  /** Positive and negative node of each place, in order; a place without a module is there as well. */
  readonly places: { readonly plus: number; readonly minus: number }[];
}

export interface LayInputs {
  readonly slots: readonly Slot[];
  readonly joining: Joining;
  readonly segmentOhm: number;
  readonly barRatedA: Known<number> | undefined;
  readonly barPath: Path;
  readonly groupSize: number;
  readonly groupLead: (group: number) => Pole;
  readonly groupDevice: (group: number) => BranchDevice | undefined;
  readonly isSameEnd: boolean;
  /** At least so many places: an inverter may tap where no module stands. */
  readonly leastPlaces: number;
}

const POLES = 2;
/** Node numbers of a row of pairs: plus and minus side by side, so that the band stays narrow. */
const pairAt = (from: number, index: number) => ({ plus: from + 2 * index + 1, minus: from + 2 * index });

const empty = (): Laid => ({ nodeCount: 0, resistors: [], sources: [], cells: [], branches: [], places: [] });

/** One resistor in each pole between two places; named once, since both carry the same current. */
function join(
  laid: Laid,
  a: { readonly plus: number; readonly minus: number },
  b: { readonly plus: number; readonly minus: number },
  ohm: number,
  branch: Omit<Branch, 'at'>,
): void {
  laid.branches.push({ ...branch, at: { resistor: laid.resistors.length } });
  laid.resistors.push({ from: a.plus, to: b.plus, ohm }, { from: a.minus, to: b.minus, ohm });
}

function addSource(laid: Laid, cell: Cell, at: { plus: number; minus: number }, seriesOhm: number): void {
  laid.sources.push({ ...at, emfV: cell.emfV, ohm: cell.innerOhm + seriesOhm });
  laid.cells.push(cell);
}

/** A device in the lead of a module carries what the module gives. */
function nameDevice(laid: Laid, slot: Slot): void {
  if (slot.device === undefined) return;
  laid.branches.push({
    id: `device of module ${slot.number}`,
    kind: 'device',
    label: `device of module ${slot.number}`,
    at: { source: laid.sources.length - 1 },
    ratedA: slot.device.ratedA,
    path: slot.device.path,
  });
}

type Fitted = Slot & { readonly cell: Cell };
const isFitted = (slot: Slot): slot is Fitted => slot.cell !== undefined;

/** Modules one after the other from a first node on; each link is the lead of the module before it. */
function chain(laid: Laid, slots: readonly Slot[], from: number): { plus: number; minus: number }[] {
  const fitted = slots.filter(isFitted);
  const places = fitted.map((_, index) => pairAt(from, index));
  fitted.forEach((slot, index) => {
    const here = places[index] ?? pairAt(from, index);
    const before = fitted[index - 1];
    const there = places[index - 1];
    if (before !== undefined && there !== undefined)
      join(laid, there, here, before.lead.ohm, {
        id: `link ${before.number}`,
        kind: 'link',
        label: `lead from module ${before.number} to module ${slot.number}`,
        areaMm2: before.lead.areaMm2,
        lengthM: before.lead.lengthM,
        moduleIds: [before.cell.module.id, slot.cell.module.id],
        path: before.lead.areaPath,
      });
    addSource(laid, slot.cell, here, slot.device?.ohm ?? 0);
    nameDevice(laid, slot);
  });
  return places;
}

/** Each module on both bars by leads of its own, which lie in series with it. A module taken out leaves its place empty. */
function layBars({ slots, segmentOhm, barRatedA, barPath, leastPlaces }: LayInputs): Laid {
  const laid = empty();
  const count = Math.max(slots.length, leastPlaces);
  for (let index = 0; index < count; index += 1) {
    const place = pairAt(0, index);
    const before = laid.places.at(-1);
    laid.places.push(place);
    if (before !== undefined)
      join(laid, before, place, segmentOhm, {
        id: `bar ${index}`,
        kind: 'bar',
        label: `bar between places ${index} and ${index + 1}`,
        ...(barRatedA === undefined ? {} : { ratedA: barRatedA }),
        path: barPath,
      });
    const slot = slots[index];
    if (slot?.cell === undefined) continue;
    addSource(laid, slot.cell, place, POLES * slot.lead.ohm + (slot.device?.ohm ?? 0));
    laid.branches.push({
      id: `lead of module ${slot.number}`,
      kind: 'module-lead',
      label: `lead of module ${slot.number}`,
      at: { source: laid.sources.length - 1 },
      areaMm2: slot.lead.areaMm2,
      lengthM: slot.lead.lengthM,
      moduleIds: [slot.cell.module.id],
      path: slot.lead.areaPath,
    });
    nameDevice(laid, slot);
  }
  return { ...laid, nodeCount: 2 * count };
}

/** Short chains on a bar. A group joined at opposite ends is taken off diagonally; else both of its leads leave its first module. */
function layGroups(inputs: LayInputs): Laid {
  const { slots, groupSize, groupLead, groupDevice, segmentOhm, barRatedA, barPath, isSameEnd } = inputs;
  const laid = empty();
  const groups = Math.max(Math.ceil(slots.length / groupSize), inputs.leastPlaces);
  let next = 0;
  for (let group = 1; group <= groups; group += 1) {
    const bar = pairAt(next, 0);
    const before = laid.places.at(-1);
    laid.places.push(bar);
    const some = slots.slice((group - 1) * groupSize, group * groupSize).filter(isFitted);
    const places = chain(laid, some, next + 2);
    const [head] = places;
    const tail = isSameEnd ? head : places.at(-1);
    if (head !== undefined && tail !== undefined) {
      const lead = groupLead(group);
      const device = groupDevice(group);
      laid.branches.push({
        id: `lead of group ${group}`,
        kind: 'group-lead',
        label: `lead of group ${group}`,
        at: { resistor: laid.resistors.length },
        areaMm2: lead.areaMm2,
        lengthM: lead.lengthM,
        moduleIds: some[0] === undefined ? [] : [some[0].cell.module.id],
        path: lead.areaPath,
      });
      if (device !== undefined)
        laid.branches.push({
          id: `device of group ${group}`,
          kind: 'device',
          label: `device of group ${group}`,
          at: { resistor: laid.resistors.length },
          ratedA: device.ratedA,
          path: device.path,
        });
      laid.resistors.push(
        { from: bar.plus, to: head.plus, ohm: lead.ohm + (device?.ohm ?? 0) },
        { from: bar.minus, to: tail.minus, ohm: lead.ohm },
      );
    }
    if (before !== undefined)
      join(laid, before, bar, segmentOhm, {
        id: `bar ${group - 1}`,
        kind: 'bar',
        label: `bar between places ${group - 1} and ${group}`,
        ...(barRatedA === undefined ? {} : { ratedA: barRatedA }),
        path: barPath,
      });
    next += 2 + 2 * some.length;
  }
  return { ...laid, nodeCount: next };
}

/** Lays a bank in its joining. */
export function layBank(inputs: LayInputs): Laid {
  switch (inputs.joining) {
    case 'chain-same-end':
    case 'chain-diagonal': {
      const laid = empty();
      laid.places.push(...chain(laid, inputs.slots, 0));
      return { ...laid, nodeCount: 2 * laid.places.length };
    }
    case 'bars-equal':
    case 'bars-given':
      return layBars(inputs);
    case 'groups-on-bar':
      return layGroups(inputs);
  }
}
