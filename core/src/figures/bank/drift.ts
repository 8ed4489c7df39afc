import { type Known, known, unknownAt } from '../../values/known.ts';
import { type BankCircuit, restingV } from './bankCircuit.ts';
import { shareBank } from './bankShare.ts';
import { withVoltages } from './nearEmpty.ts';

/** States of charge of all modules at one moment. */
export interface DriftPoint {
  readonly timeH: number;
  /** In the order of the circuit's modules. */
  readonly socs: readonly number[];
  readonly isResting: boolean;
}

/** How the states of charge of a bank part over a full discharge, and come together again at rest. */
export interface Drift {
  readonly points: readonly DriftPoint[];
  /** Largest difference between two modules, and when. */
  readonly worstSpread: number;
  readonly worstAtH: number;
  /** When the first module reached the cut-off, or the bank gave no more. */
  readonly endH: number;
  readonly endSpread: number;
  /** Hours of rest until the modules are within `settledWithin` again; undefined where they are not after a day. */
  readonly settledAfterH: number | undefined;
}

export interface DriftInputs {
  readonly circuit: BankCircuit;
  /** DC power of each tap, held through the discharge. */
  readonly powersW: readonly number[];
  readonly startSoc: number;
  readonly cutoffSoc: number;
}

const STEP_H = 1 / 60;
/** The longest discharge and the longest rest looked at, h. */
const LONGEST_H = 72;
const LONGEST_REST_H = 24;
/** Difference at which modules are called together again, as a share of charge. */
export const SETTLED_WITHIN = 0.01;
/** Points kept for a drawing. */
const KEPT = 120;

const spreadOf = (socs: readonly number[]): number => Math.max(...socs) - Math.min(...socs);

/** The circuit with the resting voltages of these states of charge. */
const chargedTo = (circuit: BankCircuit, socs: readonly number[]): BankCircuit =>
  withVoltages(circuit, ({ type }, index) => restingV(type, socs[index] ?? 0) ?? type.nominalV);

/** One step: the charge each module gives or takes in it, or undefined where the bank cannot give the power. */
function stepped(
  circuit: BankCircuit,
  powersW: readonly number[],
  socs: readonly number[],
  hours: number,
): number[] | undefined {
  const share = shareBank(chargedTo(circuit, socs), powersW);
  if (share.kind !== 'solved') return undefined;
  return share.modules.map(({ module, currentA }, index) =>
    Math.min(1, Math.max(0, (socs[index] ?? 0) - (currentA * hours) / module.type.capacityAh)),
  );
}

/** Thins a course to what a drawing needs; first and last stay. */
const thinned = (points: readonly DriftPoint[]): DriftPoint[] => {
  const every = Math.max(1, Math.ceil(points.length / KEPT));
  return points.filter((_, index) => index % every === 0 || index === points.length - 1);
};

/**
 * Follows a discharge at constant power in steps of a minute: dSoC/dt = −I / Ah, each module's voltage by its resting curve, the
 * network solved anew in each step. Then the load goes and the modules even out through their own leads. Needs the resting curve
 * of every type on the bank.
 */
export function driftOf({ circuit, powersW, startSoc, cutoffSoc }: DriftInputs): Known<Drift> {
  const bare = circuit.modules.filter(({ type }) => type.openCircuit === undefined);
  if (bare.length > 0) return unknownAt(...bare.map(({ type }) => ['types', type.id, 'openCircuit']));
  const drawn = powersW.reduce((sum, watts) => sum + watts, 0);
  let socs: readonly number[] = circuit.modules.map(() => startSoc);
  const points: DriftPoint[] = [{ timeH: 0, socs, isResting: false }];
  let worst = { spread: 0, atH: 0 };
  let timeH = 0;
  while (drawn > 0 && timeH < LONGEST_H && Math.min(...socs) > cutoffSoc) {
    const next = stepped(circuit, powersW, socs, STEP_H);
    if (next === undefined) break;
    socs = next;
    timeH += STEP_H;
    points.push({ timeH, socs, isResting: false });
    if (spreadOf(socs) > worst.spread) worst = { spread: spreadOf(socs), atH: timeH };
  }
  const endH = timeH;
  const endSpread = spreadOf(socs);
  const atRest = powersW.map(() => 0);
  let settledAfterH: number | undefined = endSpread <= SETTLED_WITHIN ? 0 : undefined;
  while (settledAfterH === undefined && timeH - endH < LONGEST_REST_H) {
    const next = stepped(circuit, atRest, socs, STEP_H);
    if (next === undefined) break;
    socs = next;
    timeH += STEP_H;
    points.push({ timeH, socs, isResting: true });
    if (spreadOf(socs) <= SETTLED_WITHIN) settledAfterH = timeH - endH;
  }
  return known({
    points: thinned(points),
    worstSpread: worst.spread,
    worstAtH: worst.atH,
    endH,
    endSpread,
    settledAfterH,
  });
}
