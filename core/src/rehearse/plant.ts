import { levelStages, shedTroubles } from '../figures/loads/shedLevels.ts';
import { type CallLevels, callLevels } from '../figures/generator/callLevels.ts';
import { bankOfSet } from '../figures/bank/ofSet.ts';
import { autonomy } from '../figures/bank/autonomy.ts';
import { type DayPart, dayStretches } from '../figures/bank/outageHours.ts';
import { type Capability, capabilityWithout } from '../figures/capability/capability.ts';
import { chargeKeyOf, chargeShareOfLine } from '../figures/capability/acCharge.ts';
import { generatorRating } from '../figures/generator/rating.ts';
import { lineDay } from '../figures/loads/lineDay.ts';
import type { Circuit, Partition } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { isOwnBank } from '../installation/ownBank.ts';
import { generatorLines } from '../installation/generatorLines.ts';
import type { Supply } from '../installation/supply.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../values/known.ts';
import { openPlaceSentences } from './openPlaces.ts';
import { engineOf } from './engine.ts';
import type { PlantLimits } from './limits.ts';
import { measuredBoards } from './meterDays.ts';
import type { LineDay, PlantBoard } from './plantBoard.ts';

import { clearSky } from './sun.ts';
import { MINUTES_OF_DAY, SEASONS } from './year.ts';

/** A generator as the minutes need it. */
export interface PlantGenerator {
  readonly name: string;
  readonly start: 'hand' | 'two-wire' | 'scheduled';
  readonly warmUpMin: number;
  /** Engine and alternator at the site, the smaller of both at a power factor of one, W. */
  readonly mostW: number;
  /** What its alternator gives on each line of the building, VA; nought on one that it does not reach. Empty where no line is looked at. */
  readonly lineVa: readonly number[];
  /** What the job lets load and charging take together, W. */
  readonly targetW: number;
  /** AC power that it gives to charge, W. */
  readonly chargeW: number;
  /** How far its frequency falls from no load to full, as a share; undefined where its type does not state it. */
  readonly droop: number | undefined;
  readonly idleLPerH: number;
  readonly lPerKwh: number;
  readonly fuelL: number;
}

/** One set with its boards, bank, sun and generator: plain figures, made once, for the minutes of any number of outages. */
export interface Plant {
  readonly stackId: string;
  readonly name: string;
  readonly boards: readonly PlantBoard[];
  /** Where their load is from, in a sentence. */
  readonly loadFrom: string;
  /** What the set carries for long, W; and how many units it comes from. */
  readonly ratedW: number;
  readonly unitCount: number;
  /** The same line by line, and without each unit; undefined where no line is looked at by itself. */
  readonly limits: PlantLimits | undefined;
  readonly lostUnit: 'rest-continue' | 'set-stops';
  readonly idleW: number;
  /** Points of the efficiency by W of one unit; one point where there is one figure. */
  readonly efficiencyW: Float64Array;
  readonly efficiency: Float64Array;
  /** Units that share what goes through the inverters: one where each has a bank of its own, and the hardest-working one is played. */
  readonly sharedBy: number;
  /** Part of the load that the bank which is played sees: all of it, where there is one bank. */
  readonly part: number;
  readonly fullWh: number;
  readonly nominalV: number;
  readonly moduleCount: number;
  readonly floorSoc: number;
  readonly reserveSoc: number;
  /** Where a generator is called and let go. */
  readonly callLevels: CallLevels;
  /** What the bank gives and takes at most, DC, W. */
  readonly mostDischargeW: number;
  readonly mostChargeW: number;
  /** DC and AC power of the arrays under a clear sky by season and minute, W; empty without arrays that are known. */
  readonly sunDcW: readonly Float64Array[];
  readonly sunAcW: readonly Float64Array[];
  readonly acStaysWithGenerator: boolean;
  readonly generator: PlantGenerator | undefined;
  /** What is left out because it is not known, each a sentence. */
  readonly leftOut: readonly string[];
}

/** What modules give of their rating in use: heat, dirt, wiring, conversion. */
export const PV_PERFORMANCE = 0.85;
const STANDARD_W_M2 = 1000;

/** Stretches of a day as minutes: a minute belongs to the stretch that holds its middle. */
function minutesOf(parts: readonly DayPart[]): Float64Array[] {
  const stretches = dayStretches(parts);
  return parts.map((_, part) => {
    const minutes = new Float64Array(MINUTES_OF_DAY);
    for (const { fromH, toH, watts } of stretches)
      for (let minute = 0; minute < MINUTES_OF_DAY; minute += 1) {
        const hour = (minute + 0.5) / 60;
        if (hour >= fromH && hour < toH) minutes[minute] = watts[part] ?? 0;
      }
    return minutes;
  });
}

/** The lines of a board, minute by minute. */
function linesOf(circuits: readonly Circuit[], supply: Supply, part: number): LineDay[] {
  const days = lineDay(circuits, supply);
  return supply.lines.map((_, line) => {
    const re = new Float64Array(MINUTES_OF_DAY);
    const im = new Float64Array(MINUTES_OF_DAY);
    for (let minute = 0; minute < MINUTES_OF_DAY; minute += 1) {
      const hour = (minute + 0.5) / 60;
      const power = days.find(({ fromH, toH }) => hour >= fromH && hour < toH)?.lines[line];
      re[minute] = (power?.re ?? 0) * part;
      im[minute] = (power?.im ?? 0) * part;
    }
    return { re, im };
  });
}

/** What a set carries by its lines, scaled like its boards: the hardest-working unit of its own bank sees its part of everything. */
function limitsOf(
  compiled: CompiledStack,
  supply: Supply,
  whole: Capability,
  part: number,
  share: number,
): PlantLimits {
  const scaled = ({ totalW, totalVa, perLineVa, perLineW }: Capability) => ({
    totalW: totalW * share,
    // Held against the lines, which are scaled by the part.
    totalVa: totalVa * part,
    lineVa: perLineVa.map((va) => va * part),
    lineW: perLineW.map((watts) => watts * part),
  });
  return {
    ...scaled(whole),
    names: supply.lines,
    without: compiled.stack.units.flatMap(({ id }) => {
      const left = capabilityWithout(compiled, id);
      return left.known ? [{ unitId: id, ...scaled(left.value) }] : [];
    }),
  };
}

/** The boards of a set, each with its own day; of a bank that serves one inverter the part that this one takes. */
function boardsOf(
  { circuits, partitions, withGenerator }: CompiledStack,
  supply: Supply,
  part: number,
): PlantBoard[] {
  const carried = new Set(partitions.map(({ id }) => id));
  const all_: readonly Partition[] = [...partitions, ...withGenerator.filter(({ id }) => !carried.has(id))];
  const parts = all_.map((partition): DayPart => ({
    circuits: circuits.filter(({ partitionId }) => partitionId === partition.id),
    shedBelowSoc: undefined,
  }));
  const minutes = minutesOf(parts);
  return all_.map((partition, at) => ({
    partitionId: partition.id,
    name: partition.name,
    shedBelowSoc: partition.kind === 'shed' ? partition.shedBelowSoc : undefined,
    onlyWithGenerator: !carried.has(partition.id),
    minuteW: (minutes[at] ?? new Float64Array(MINUTES_OF_DAY)).map((watts) => watts * part),
    lines: linesOf(parts[at]?.circuits ?? [], supply, part),
  }));
}

interface Sunlight {
  readonly dc: Float64Array[];
  readonly ac: Float64Array[];
  readonly staysWithGenerator: boolean;
  readonly leftOut: string[];
}

/** The arrays of a set: their power under a clear sky, season by season. One whose place or size is not known is left out, and said. */
function sunOf({ arrays, site }: Installation, compiled: CompiledStack, share: number): Sunlight {
  const own = new Set(compiled.partitions.map(({ id }) => id));
  const dc: Float64Array[] = [];
  const ac: Float64Array[] = [];
  const leftOut: string[] = [];
  let staysWithGenerator = false;
  for (const { array, moduleType } of arrays) {
    const strings = (array.places ?? [])
      .filter(({ stackId }) => stackId === compiled.stack.id)
      .reduce((sum, place) => sum + place.strings, 0);
    const isAc = array.coupling === 'ac';
    if (isAc ? !own.has(array.partitionId ?? '') : strings === 0) continue;
    const given = all({
      latitudeDeg: field(site.latitudeDeg, 'site', 'latitudeDeg'),
      tiltDeg: field(array.tiltDeg, 'arrays', array.id, 'tiltDeg'),
      directionDeg: field(array.directionDeg, 'arrays', array.id, 'directionDeg'),
      ratedW: isAc
        ? field(array.ratedAcW, 'arrays', array.id, 'ratedAcW')
        : mapKnown(
            all({
              type: moduleType,
              count: field(array.modulesPerString, 'arrays', array.id, 'modulesPerString'),
            }),
            ({ type, count }) => strings * count * type.ratedW,
          ),
    });
    if (!given.known) {
      const what = given.missing.map((path) => SUN_WORDS[String(path.at(-1))] ?? String(path.at(-1)));
      leftOut.push(`The sun on ${array.name} is left out. Not known: ${what.join(', ')}.`);
      continue;
    }
    const { latitudeDeg, tiltDeg, directionDeg, ratedW } = given.value;
    if (isAc && array.withGenerator === 'stays') staysWithGenerator = true;
    const into = isAc ? ac : dc;
    for (let season = 0; season < SEASONS; season += 1) {
      const light = clearSky(latitudeDeg, season * 5 + 3, { tiltDeg, directionDeg });
      const sum = (into[season] ??= new Float64Array(MINUTES_OF_DAY));
      for (let minute = 0; minute < MINUTES_OF_DAY; minute += 1)
        sum[minute] =
          (sum[minute] ?? 0) + (share * ratedW * PV_PERFORMANCE * (light[minute] ?? 0)) / STANDARD_W_M2;
    }
  }
  return { dc, ac, staysWithGenerator, leftOut };
}

const SUN_WORDS: Readonly<Record<string, string>> = {
  latitudeDeg: 'latitude of the site',
  tiltDeg: 'tilt',
  directionDeg: 'direction',
  ratedAcW: 'rated power',
  modulesPerString: 'modules in a string',
  moduleTypeId: 'module type',
};

/** The generator of a set, as its minutes need it. */
function generatorOf(
  installation: Installation,
  compiled: CompiledStack,
  supply: Supply,
  { part, share }: { readonly part: number; readonly share: number },
): { readonly generator: PlantGenerator | undefined; readonly leftOut: string[] } {
  const found = installation.generators.find(
    ({ generator }) => generator.stackId === compiled.stack.id && generator.connection !== undefined,
  );
  if (found === undefined) return { generator: undefined, leftOut: [] };
  const { stack } = compiled;
  const key = chargeKeyOf(found.generator.connection ?? '');
  const given = all({
    type: found.type,
    rating: generatorRating(found),
    inverter: compiled.type,
    capability: capabilityWithout(compiled),
    charge: field(stack[key], 'stacks', stack.id, key),
  });
  const { name } = found.generator;
  if (!given.known)
    return {
      generator: undefined,
      leftOut: [`${name} is left out: its rating or charging power is not known.`],
    };
  const { type, rating, inverter, capability, charge } = given.value;
  const reached = generatorLines(found.generator, type, supply);
  if (!reached.known)
    return { generator: undefined, leftOut: [`${name} is left out: which line it supplies is not known.`] };
  const engine = engineOf(found, type, rating);
  const mostW = engine.mostW * share;
  return {
    generator: {
      name,
      start: type.start,
      warmUpMin: Math.ceil(type.warmUpS / 60),
      mostW,
      lineVa: supply.lines.map((_, line) => (reached.value.includes(line) ? rating.perLineVa * part : 0)),
      targetW: mostW * installation.defaults.generatorLoading.value,
      // Only what stands on the lines that it reaches charges from it.
      chargeW:
        share *
        reached.value.reduce(
          (sum, line) => sum + charge * chargeShareOfLine(compiled, inverter, capability, line),
          0,
        ),
      droop: type.droop,
      idleLPerH: engine.idleLPerH,
      // What the bank of one inverter sees of it is its share; it burns for all of them.
      lPerKwh: engine.lPerKwh / share,
      fuelL: engine.fuelL,
    },
    leftOut: [...engine.leftOut],
  };
}

/** Shed stages that cannot drop as they are numbered, and those of which nobody has said when: each is played as it is stated. */
const shedSentences = ({ partitions }: CompiledStack, floorSoc: number): string[] => [
  ...shedTroubles(partitions, floorSoc).map(({ partition: { name }, reason }) => `${name} ${reason}.`),
  ...levelStages(partitions)
    .filter(({ shedBelowSoc }) => shedBelowSoc === undefined)
    .map(({ name }) => `At which level ${name} drops is not known: it is carried to the end.`),
];

/** A set as the minutes of an outage need it; not known while load, bank or inverters are not. `none` where it makes no island. */
export function plantOf(installation: Installation, compiled: CompiledStack): Known<Plant | 'none'> {
  const found = autonomy(compiled, 'reserve', 'average');
  if (found === undefined) return known('none');
  const { stack } = compiled;
  const given = all({
    autonomy: found,
    bank: bankOfSet(compiled),
    type: compiled.type,
    capability: capabilityWithout(compiled),
    supply: compiled.supply,
  });
  if (!given.known) return given;
  const { bank, type, capability, supply } = given.value;
  if (bank === 'none') return known('none');
  if (given.value.autonomy.floorSoc >= 1) return unknownAt(['stacks', stack.id, 'bank', 'cutoffSoc']);
  const own = isOwnBank(stack);
  const { part } = given.value.autonomy;
  // A bank of one inverter sees the part of sun and generator that this one takes.
  const share = own ? 1 / stack.units.length : 1;
  const sunlight = sunOf(installation, compiled, share);
  const engine = generatorOf(installation, compiled, supply, { part, share });
  const points = type.efficiencyPoints ?? [{ share: 1, efficiency: type.efficiency }];
  const units = own ? 1 : stack.units.length;
  const dischargeA = Math.min(type.maxDischargeA, stack.dischargeCurrentA ?? Infinity);
  const chargeA = Math.min(bank.chargeA, units * (stack.chargeCurrentA ?? type.maxChargeA));
  return known({
    stackId: stack.id,
    name: stack.name,
    ...measuredBoards(installation, compiled, boardsOf(compiled, supply, part), part),
    ratedW: capability.totalW * share,
    unitCount: stack.units.length,
    limits: limitsOf(compiled, supply, capability, part, share),
    lostUnit: type.lostUnit,
    idleW: given.value.autonomy.idleW,
    efficiencyW: Float64Array.from(points, ({ share }) => share * type.ratedW),
    efficiency: Float64Array.from(points, ({ efficiency }) => efficiency),
    sharedBy: own ? 1 : stack.units.length,
    part,
    fullWh: bank.capacityAh * bank.nominalV,
    nominalV: bank.nominalV,
    moduleCount: bank.moduleCount,
    floorSoc: given.value.autonomy.floorSoc,
    reserveSoc: given.value.autonomy.startSoc,
    callLevels: callLevels(stack.settings, given.value.autonomy.floorSoc),
    mostDischargeW: Math.min(bank.continuousDischargeA, units * dischargeA) * bank.nominalV,
    mostChargeW: chargeA * bank.nominalV,
    sunDcW: sunlight.dc,
    sunAcW: sunlight.ac,
    acStaysWithGenerator: sunlight.staysWithGenerator,
    generator: engine.generator,
    leftOut: [
      ...openPlaceSentences(installation),
      ...sunlight.leftOut,
      ...engine.leftOut,
      ...shedSentences(compiled, given.value.autonomy.floorSoc),
      ...(stack.chargeCurrentA === undefined
        ? ['The charge setting is not known: the bank is charged with as much as the inverters can.']
        : []),
    ],
  });
}
