import type { BankCircuit } from '../../figures/bank/bankCircuit.ts';
import { type BankShare, shareBank } from '../../figures/bank/bankShare.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import { bankLoadsW } from '../../figures/bank/bankDraw.ts';
import type { Board } from '../../figures/loads/board.ts';
import { hasStatedCharge } from '../../figures/bank/bankCircuit.ts';
import { bankCircuitOf, nearEmptyOf } from '../../figures/bank/ofSet.ts';
import type { BatteryStart } from '../../figures/loads/surges.ts';
import { known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { type CheckContext, type Measured, NO_WORKING } from '../check.ts';
import type { Found, Working } from '../finding.ts';
import type { BankMoment } from './bankMoment.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { remember } from '../../values/remember.ts';
import { bankSubject } from './subjects.ts';

export type SolvedShare = Extract<BankShare, { kind: 'solved' }>;

/** A bank solved for one of the loads that it may see. */
export interface SolvedCase {
  readonly share: BankShare;
  /** DC power asked of it, W. */
  readonly askedW: number;
  /** What starts; empty at the continuous load. */
  readonly label: string;
  readonly durationS: number;
  /** AC power of each line, W. */
  readonly linesW: readonly number[];
  /** Number of the inverter whose bank it is, where each has its own; else 0. */
  readonly ofUnit: number;
}

/** Which module is meant, and of whose bank. */
export const moduleWords = (number: number, { ofUnit }: SolvedCase): string =>
  ofUnit > 0 ? `${number} of the bank of unit ${ofUnit}` : String(number);

/** A bank as a network, solved for everything that is asked of it in one load case. */
export interface SharingCase extends StackCase {
  readonly circuit: BankCircuit;
  readonly solved: readonly SolvedCase[];
}

/** How the hardest-working module stands to the mean, and whether that was solved or is a planning allowance. */
export interface Spread {
  readonly factor: number;
  readonly isSolved: boolean;
}

/** How far the modules are apart at a moment, where the bank is known so far; undefined where it is not, or cannot give the power. */
const solvedFactor = remember((one: StackCase) =>
  remember(({ linesW }: BankMoment): number | undefined => {
    const found = bankCircuitOf(one.compiled);
    if (!found.known || typeof found.value === 'string') return undefined;
    const circuit = found.value;
    const factors: number[] = [1];
    for (const { powersW } of bankLoadsW(one, linesW)) {
      const share = shareBank(circuit, powersW);
      if (share.kind !== 'solved') return undefined;
      factors.push(...share.modules.map((module) => module.share));
    }
    return Math.max(...factors);
  }),
);

/** Solved from leads and bars, where the bank is known so far; else the allowance of the job. One string shares with nobody. */
export function spreadAt(
  context: CheckContext,
  one: StackCase,
  bank: CompiledBank,
  moment: BankMoment,
): Spread {
  if (bank.parallelCount <= 1) return { factor: 1, isSolved: true };
  const factor = solvedFactor(one)(moment);
  return factor === undefined
    ? { factor: 1 + context.installation.defaults.moduleShareTolerance.value, isSolved: false }
    : { factor, isSolved: true };
}

/** Which of the two a working has used. */
export const spreadWords = ({ isSolved }: Spread): string =>
  isSolved
    ? 'share of the hardest-working module against the mean, solved'
    : 'planned share of the hardest-working module against the mean';

export type BankLoadCase = 'steady' | 'surge';

/** What flows on the lines at the continuous load, or during each start that asks most of the battery. */
function momentsOf(
  { continuous, batteryStarts }: Board,
  load: BankLoadCase,
): readonly Pick<BatteryStart, 'linesW' | 'label' | 'durationS'>[] {
  const steady = { linesW: continuous.knownPart.map((line) => line.re), label: '', durationS: 0 };
  if (load === 'steady') return [steady];
  if (batteryStarts.length === 0) return [{ ...steady, label: 'nothing' }];
  return batteryStarts;
}

function solveFor(one: StackCase, circuit: BankCircuit, load: BankLoadCase): SolvedCase[] {
  const { units } = one.compiled.stack;
  return momentsOf(one.board, load).flatMap(({ linesW, label, durationS }) =>
    bankLoadsW(one, linesW).map(({ powersW, ofUnitId }): SolvedCase => ({
      share: shareBank(circuit, powersW),
      askedW: powersW.reduce((sum, watts) => sum + watts, 0),
      label,
      durationS,
      linesW,
      ofUnit: 1 + units.findIndex((unit) => unit.id === ofUnitId),
    })),
  );
}

/** The bank as a load case meets it, with all that it is solved for: once, for all checks that look at it. */
export const solvedFor = {
  steady: remember((one: StackCase) => {
    const circuit = bankCircuitOf(one.compiled);
    return circuit.known && typeof circuit.value !== 'string'
      ? known(solveFor(one, circuit.value, 'steady'))
      : unknownAt(...(circuit.known ? [] : circuit.missing));
  }),
  /** Nearly empty, and where states of charge are stated one by one as they are as well: there modules are furthest apart. */
  surge: remember((one: StackCase) => {
    const circuit = bankCircuitOf(one.compiled);
    if (!circuit.known || typeof circuit.value === 'string')
      return unknownAt(...(circuit.known ? [] : circuit.missing));
    const asStated = hasStatedCharge(one.compiled.stack) ? solveFor(one, circuit.value, 'surge') : [];
    return mapKnown(nearEmptyOf(one.compiled), (met) =>
      met === 'none' ? [] : [...solveFor(one, met, 'surge'), ...asStated],
    );
  }),
};

/** Runs a measurement for each bank whose modules share; what is missing to solve the network is one `unknown` that names it. */
export function eachSharingBank<Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  load: BankLoadCase,
  measure: (one: SharingCase) => Measured<Key> | undefined | readonly (Measured<Key> | undefined)[],
): Found<Key>[] {
  return eachStack(check, context, unit, (one): (Measured<Key> | undefined)[] => {
    const { compiled, board } = one;
    const found = bankCircuitOf(compiled);
    if (found.known && typeof found.value === 'string') return [];
    const asked = load === 'steady' ? board.continuous.missing : board.starts.missing;
    // With the load not known there is nothing to solve for.
    const solved = asked.length > 0 ? unknownAt(...asked) : solvedFor[load](one);
    const missing: Path[] = [...(found.known ? [] : found.missing), ...(solved.known ? [] : solved.missing)];
    const blank = { subject: bankSubject(compiled), value: undefined, limit: undefined, unit };
    if (!found.known || typeof found.value === 'string' || !solved.known)
      return [{ ...blank, missing, working: () => NO_WORKING }];
    const cases = solved.value;
    // What a bank cannot give at all is a finding of its own: there are no currents to judge.
    if (cases.some(({ share }) => share.kind === 'too-much')) return [];
    return [measure({ ...one, circuit: found.value, solved: cases })].flat();
  });
}

/** Of all that a bank was solved for, what scores highest. */
export function worstOf<T>(
  solved: readonly SolvedCase[],
  look: (share: SolvedShare, one: SolvedCase) => readonly T[],
  score: (found: T) => number,
): T | undefined {
  let worst: T | undefined;
  for (const one of solved)
    if (one.share.kind === 'solved')
      for (const found of look(one.share, one))
        if (worst === undefined || score(found) > score(worst)) worst = found;
  return worst;
}

/** What a solved bank looks like in a working: every module with its figures. */
export function shareNotes(share: BankShare): string[] {
  if (share.kind !== 'solved') return [];
  return [
    ...share.modules.map(
      ({ module, currentA, share: part, lossW }) =>
        `Module ${module.number}: ${currentA.toFixed(2)} A, ${(100 * part).toFixed(1)} % of the mean, ${lossW.toFixed(1)} W of heat; ${(module.ohm * 1000).toFixed(2)} mΩ at ${module.emfV.toFixed(2)} V.`,
    ),
    ...share.taps.map(
      (tap, index) => `Inverter ${index + 1}: ${tap.currentA.toFixed(2)} A at ${tap.voltageV.toFixed(2)} V.`,
    ),
    `Solved in ${share.iterations} steps.`,
  ];
}

export const SHARING_SOURCE =
  'Nodal analysis of modules, leads, lugs and bars; the inverters draw constant power, so their current rises as the voltage sags.';

export function sharingWorking(share: BankShare, steps: Working['steps'] = []): Working {
  return { steps, inputs: [], source: SHARING_SOURCE, notes: shareNotes(share) };
}
