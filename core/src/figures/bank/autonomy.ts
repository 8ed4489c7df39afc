import { bankOfSet } from './ofSet.ts';
import { islandBoard } from '../loads/boards.ts';
import { all, field, type Known } from '../../values/known.ts';
import type { Bank, Circuit } from '../../installation/facts.ts';
import { efficiencyAt } from '../capability/efficiency.ts';
import { feedsNothing } from '../capability/capability.ts';
import { HOURS_OF_DAY } from '../loads/circuitPower.ts';
import { type DayPart, dayStretches, hasHours, type OutageBank, outageHours } from './outageHours.ts';
import { add, type Complex, ZERO } from '../../network/complex.ts';
import { bankDraw } from './bankDraw.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { floorSoc as floorOf } from './nearEmpty.ts';
import type { Supply } from '../../installation/supply.ts';

/** A stretch between two levels with the same load: until the next stage is shed, or the floor. */
export interface AutonomySegment {
  readonly fromSoc: number;
  readonly toSoc: number;
  readonly energyWh: number;
  readonly loadW: number;
  readonly efficiency: number;
  readonly hours: number;
}

/** How long a bank lasts, from a stated level down to where discharge stops. */
export interface Autonomy {
  readonly startSoc: number;
  readonly floorSoc: number;
  readonly energyWh: number;
  readonly capacityAh: number;
  readonly nominalV: number;
  readonly idleW: number;
  readonly loadW: number;
  /** Share of the load that this bank feeds: all of it, or that of the hardest-working inverter where each has a bank. */
  readonly part: number;
  readonly isOwn: boolean;
  readonly hours: number;
  /** The outage laid on the day, where items say when they run; undefined where they do not. */
  readonly byHour: OutageByHour | undefined;
  /** At least one; more where stages are shed on the way down. */
  readonly segments: readonly AutonomySegment[];
}

/** How long an outage lasts by the hour at which it begins. */
export interface OutageByHour {
  readonly worst: { readonly startH: number; readonly hours: number };
  /** From the hour that the site states. */
  readonly typed: { readonly startH: number; readonly hours: number } | undefined;
}

/** What may be promised: from the worst hour where items say when they run, else at the average load. */
export const quotedHours = ({ byHour, hours }: Autonomy): number => byHour?.worst.hours ?? hours;

export type AutonomyFrom = 'reserve' | 'full';
export type AutonomyLoad = 'average' | 'expected-peak';

/** Load of one partition, W; nothing is missing here, as its board has been asked before. */
function partitionW(compiled: CompiledStack, partitionId: string, load: AutonomyLoad): number {
  let sum = 0;
  const board = islandBoard(compiled);
  for (const circuit of board.known ? board.value.circuits : []) {
    if (circuit.partitionId !== partitionId) continue;
    for (const item of circuit.items) {
      const runningW = (item.quantity ?? 0) * (item.runningW ?? 0);
      sum += runningW * (load === 'average' ? (item.hoursPerDay ?? 0) / 24 : (item.demandFactor ?? 0));
    }
  }
  return sum;
}

/** Splits the way down at the levels where stages are shed, lowest stage number and highest level first. */
function segmentsOf(
  compiled: CompiledStack,
  load: AutonomyLoad,
  loadW: number,
  from: { readonly startSoc: number; readonly floorSoc: number; readonly fullWh: number },
  { drawW, efficiencyOf }: { drawW: (loadW: number) => number; efficiencyOf: (loadW: number) => number },
): AutonomySegment[] {
  const sheds = compiled.partitions
    .flatMap((partition) =>
      partition.kind === 'shed' && partition.shedBelowSoc !== undefined
        ? [{ soc: partition.shedBelowSoc, watts: partitionW(compiled, partition.id, load) }]
        : [],
    )
    .sort((a, b) => b.soc - a.soc);
  const segments: AutonomySegment[] = [];
  let soc = from.startSoc;
  let watts = loadW;
  const until = (toSoc: number): void => {
    if (toSoc >= soc) return;
    const energyWh = from.fullWh * (soc - toSoc);
    const drawn = drawW(watts);
    segments.push({
      fromSoc: soc,
      toSoc,
      energyWh,
      loadW: watts,
      efficiency: efficiencyOf(watts),
      hours: drawn > 0 ? energyWh / drawn : Infinity,
    });
    soc = toSoc;
  };
  for (const shed of sheds) {
    until(Math.max(shed.soc, from.floorSoc));
    watts = Math.max(0, watts - shed.watts);
  }
  until(from.floorSoc);
  return segments;
}

function byHourOf(
  compiled: CompiledStack,
  circuits: readonly Circuit[],
  bank: OutageBank,
): OutageByHour | undefined {
  if (!hasHours(circuits)) return undefined;
  const shed = compiled.partitions.filter(
    ({ kind, shedBelowSoc }) => kind === 'shed' && shedBelowSoc !== undefined,
  );
  const parts: DayPart[] = [
    {
      circuits: circuits.filter(({ partitionId }) => !shed.some(({ id }) => id === partitionId)),
      shedBelowSoc: undefined,
    },
    ...shed.map(({ id, shedBelowSoc }) => ({
      circuits: circuits.filter(({ partitionId }) => partitionId === id),
      shedBelowSoc,
    })),
  ];
  const stretches = dayStretches(parts);
  const from = (startH: number) => ({ startH, hours: outageHours(stretches, parts, bank, startH) });
  const starts = Array.from({ length: HOURS_OF_DAY }, (_, hour) => from(hour));
  const { outageStartH } = compiled.site;
  return {
    worst: starts.reduce((worst, one) => (one.hours < worst.hours ? one : worst)),
    typed: outageStartH === undefined ? undefined : from(outageStartH),
  };
}

/** Share of a load that the hardest-working inverter takes. */
function hardestPart(compiled: CompiledStack, supply: Supply, lines: readonly Complex[]): number {
  const linesW = lines.map((line) => line.re);
  const total = linesW.reduce((sum, watts) => sum + watts, 0);
  const { watts } = bankDraw({ compiled, supply, lostUnitId: undefined }, linesW);
  return total > 0 ? watts / total : 1 / compiled.stack.units.length;
}

/**
 * Autonomy t = E / (P/η + P_idle), with E = Ah · V · (SoC_start − SoC_floor). The floor is the cut-off, or what the module
 * type leaves unusable where that is higher. Idle power of all inverters is drawn on the DC side. Where shed stages go on the
 * way down, the hours of the stretches between them add up.
 */
export function autonomy(
  compiled: CompiledStack,
  from: AutonomyFrom,
  load: AutonomyLoad,
): Known<Autonomy> | undefined {
  const whole = bankOfSet(compiled);
  if (whole.known && whole.value === 'none') return undefined;
  // What makes no island has no autonomy, whatever its battery holds.
  if (
    compiled.stack.arrangement !== undefined &&
    compiled.type.known &&
    feedsNothing(compiled.stack.arrangement, compiled.type.value)
  )
    return undefined;
  const stated: Bank | undefined = typeof compiled.stack.bank === 'object' ? compiled.stack.bank : undefined;
  const path = ['stacks', compiled.stack.id, 'bank'];
  const given = all({
    bank: whole,
    type: compiled.type,
    board: islandBoard(compiled),
    supply: compiled.supply,
    startSoc:
      from === 'full' ? { known: true as const, value: 1 } : field(stated?.reserveSoc, ...path, 'reserveSoc'),
    cutoffSoc: field(stated?.cutoffSoc, ...path, 'cutoffSoc'),
  });
  if (!given.known) return given;
  const { bank, type, board, supply, startSoc, cutoffSoc } = given.value;
  if (bank === 'none') return undefined;
  const sum = load === 'average' ? board.averageW : board.expected;
  if (sum.missing.length > 0) return { known: false, missing: sum.missing };
  const loadW = load === 'average' ? board.averageW.knownPart : board.expected.knownPart.reduce(add, ZERO).re;
  const own = isOwnBank(compiled.stack);
  const idleW = type.idleW * (own ? 1 : compiled.stack.units.length);
  const floorSoc = floorOf(cutoffSoc, bank.type);
  const energyWh = bank.capacityAh * bank.nominalV * Math.max(0, startSoc - floorSoc);
  // Of banks that serve one inverter each, the one of the hardest-working inverter is empty first.
  const part = own ? hardestPart(compiled, supply, board.expected.knownPart) : 1;
  const sharedBy = own ? 1 : compiled.stack.units.length;
  const efficiency = (watts: number): number => efficiencyAt(type, (part * watts) / sharedBy);
  const drawW = (watts: number): number => (part * watts) / efficiency(watts) + idleW;
  const fullWh = bank.capacityAh * bank.nominalV;
  const segments = segmentsOf(
    compiled,
    load,
    loadW,
    { startSoc, floorSoc, fullWh },
    { drawW, efficiencyOf: efficiency },
  );
  return {
    known: true,
    value: {
      startSoc,
      floorSoc,
      energyWh,
      capacityAh: bank.capacityAh,
      nominalV: bank.nominalV,
      idleW,
      loadW,
      part,
      isOwn: own,
      hours: segments.reduce((sum, segment) => sum + segment.hours, 0),
      byHour:
        load === 'average'
          ? byHourOf(compiled, board.circuits, { fullWh, startSoc, floorSoc, drawW })
          : undefined,
      segments,
    },
  };
}
