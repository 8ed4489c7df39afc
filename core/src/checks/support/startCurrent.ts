import type { CompiledBank } from '../../figures/bank/bank.ts';
import { bankDraw, bankLoadsW } from '../../figures/bank/bankDraw.ts';
import { bankCircuitOf } from '../../figures/bank/ofSet.ts';
import { stringAtRest } from '../../figures/bank/stringAtRest.ts';
import type { BatteryStart } from '../../figures/loads/surges.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import type { CheckContext } from '../check.ts';
import { lowestV } from '../../figures/bank/lowestV.ts';
import type { StackCase } from './eachLine.ts';
import { solvedFor, type SolvedShare, spreadAt } from './sharing.ts';

/** What flows out of a bank during one start. */
export interface StartCurrent {
  /** DC power, W. */
  readonly watts: number;
  /** Voltage of the bank as it has it then: W over A. */
  readonly volts: number;
  readonly amperes: number;
  readonly durationS: number;
  readonly label: string;
  /** So many times the limits of the hardest-working inverter is what the bank can be asked for. */
  readonly evenUnits: number;
  /** Share of the hardest-working module against the mean. */
  readonly spread: number;
  /** The inverter that draws most, A. */
  readonly hardestUnitA: number;
  /** The bank solved; undefined for a string and for an estimate. */
  readonly share: SolvedShare | undefined;
}

/**
 * The starts of a board as a bank meets them. `solved`: constant power on the network, or on one string, nearly empty. `bounds`: where
 * leads, bars or resting voltages are not known the current lies between that at nominal and that at the lowest voltage the set runs at.
 */
export type StartCurrents =
  | { readonly kind: 'solved'; readonly starts: readonly StartCurrent[] }
  | {
      readonly kind: 'bounds';
      readonly least: readonly StartCurrent[];
      readonly most: readonly StartCurrent[];
      readonly missing: readonly Path[];
    }
  | { readonly kind: 'too-much' };

function evenUnitsAt(one: StackCase, linesW: readonly number[]): number {
  return bankDraw(one, linesW).evenUnits;
}

/** P = U · I with U = E − R · I: the smaller of the two answers is the one that a bank settles at; undefined past the largest power. */
export function constantPowerA(watts: number, emfV: number, ohm: number): number | undefined {
  if (ohm === 0) return watts / emfV;
  const root = emfV * emfV - 4 * ohm * watts;
  return root < 0 ? undefined : (emfV - Math.sqrt(root)) / (2 * ohm);
}

function estimated(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  start: BatteryStart,
  volts: number,
): StartCurrent {
  const { linesW, durationS, label } = start;
  const draw = bankDraw(one, linesW);
  const loads = bankLoadsW(one, linesW);
  const ofHardest = Math.max(...loads.map(({ powersW }) => powersW.reduce((sum, watts) => sum + watts, 0)));
  const hardestUnitW = Math.max(0, ...loads.flatMap(({ powersW }) => powersW));
  const moment = { ...draw, linesW, durationS, label };
  return {
    watts: ofHardest,
    volts,
    amperes: ofHardest / volts,
    durationS,
    label,
    evenUnits: draw.evenUnits,
    spread: spreadAt(context, one, bank, moment).factor,
    hardestUnitA: hardestUnitW / volts,
    share: undefined,
  };
}

function ofString(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
): StartCurrents | { readonly missing: readonly Path[] } {
  const string = stringAtRest(one.compiled, bank);
  if (!string.known) return { missing: string.missing };
  const { emfV, ohm } = string.value;
  const starts: StartCurrent[] = [];
  for (const start of one.board.batteryStarts) {
    const at = estimated(context, one, bank, start, emfV);
    const amperes = constantPowerA(at.watts, emfV, ohm);
    if (amperes === undefined) return { kind: 'too-much' };
    const volts = at.watts / amperes;
    starts.push({
      ...at,
      amperes,
      volts: Number.isFinite(volts) ? volts : emfV,
      hardestUnitA: at.watts > 0 ? (at.hardestUnitA * emfV * amperes) / at.watts : 0,
    });
  }
  return { kind: 'solved', starts };
}

const made = remember((_one: StackCase) => new WeakMap<CompiledBank, StartCurrents>());

/** All starts that ask most of a bank, each with the current it draws at the voltage the bank has then; once for a set in a mode. */
export function startCurrents(context: CheckContext, one: StackCase, bank: CompiledBank): StartCurrents {
  const before = made(one).get(bank);
  if (before !== undefined) return before;
  const currents = workedOut(context, one, bank);
  made(one).set(bank, currents);
  return currents;
}

function workedOut(context: CheckContext, one: StackCase, bank: CompiledBank): StartCurrents {
  const circuit = bankCircuitOf(one.compiled);
  let missing: readonly Path[];
  if (circuit.known && circuit.value === 'one string') {
    const found = ofString(context, one, bank);
    if ('kind' in found) return found;
    missing = found.missing;
  } else {
    const solved = solvedFor.surge(one);
    if (solved.known) {
      if (one.board.batteryStarts.length === 0) return { kind: 'solved', starts: [] };
      if (solved.value.some(({ share }) => share.kind === 'too-much')) return { kind: 'too-much' };
      return {
        kind: 'solved',
        starts: solved.value.flatMap(({ share, askedW, label, durationS, linesW }): StartCurrent[] =>
          share.kind !== 'solved'
            ? []
            : [
                {
                  watts: askedW,
                  volts: share.totalA > 0 ? askedW / share.totalA : bank.nominalV,
                  amperes: share.totalA,
                  durationS,
                  label,
                  evenUnits: evenUnitsAt(one, linesW),
                  spread: Math.max(1, ...share.modules.map((module) => module.share)),
                  hardestUnitA: Math.max(0, ...share.taps.map((tap) => tap.currentA)),
                  share,
                },
              ],
        ),
      };
    }
    missing = solved.missing;
  }
  const at = (volts: number): StartCurrent[] =>
    one.board.batteryStarts.map((start) => estimated(context, one, bank, start, volts));
  return { kind: 'bounds', least: at(bank.nominalV), most: at(lowestV(one, bank)), missing };
}

/** A start against a limit that may depend on how long it lasts. */
export interface HeldStart<L> {
  readonly start: StartCurrent;
  readonly limit: L;
  readonly missing: readonly Path[];
}

/**
 * The start that comes nearest to a limit. Where only bounds are known: within is only what is within at the larger, and what is over at
 * the smaller is over; between them the missing places are named.
 */
export function worstStart(
  currents: Exclude<StartCurrents, { kind: 'too-much' }>,
  amperesOf: (start: StartCurrent) => number,
  limitOf: (start: StartCurrent) => number,
): HeldStart<number> | undefined {
  const worst = (starts: readonly StartCurrent[]): HeldStart<number> | undefined => {
    let found: HeldStart<number> | undefined;
    for (const start of starts) {
      const limit = limitOf(start);
      if (found === undefined || amperesOf(start) / limit > amperesOf(found.start) / found.limit)
        found = { start, limit, missing: [] };
    }
    return found;
  };
  if (currents.kind === 'solved') return worst(currents.starts);
  const most = worst(currents.most);
  if (most === undefined || amperesOf(most.start) <= most.limit) return most;
  const least = worst(currents.least);
  return least === undefined ? undefined : { ...least, missing: currents.missing };
}
