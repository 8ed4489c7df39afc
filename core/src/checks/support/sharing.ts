import type { BankCircuit } from '../../compile/bankCircuit.ts';
import { type BankShare, shareBank } from '../../compile/bankShare.ts';
import { unitPowersW } from '../../compile/unitPower.ts';
import type { CompiledBank } from '../../compile/bank.ts';
import type { Path } from '../../design/problem.ts';
import type { Complex } from '../../network/complex.ts';
import { scale } from '../../network/complex.ts';
import { type CheckContext, type Measurement, NO_WORKING } from '../check.ts';
import type { Finding, Working } from '../finding.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { bankSubject } from './subjects.ts';

/** A bank as a network, with what is asked of it. */
export interface SharingCase extends StackCase {
  readonly circuit: BankCircuit;
  /** DC power of each inverter at the continuous load. */
  readonly steadyW: readonly number[];
  /** The same during the start that takes the most real power. */
  readonly surgeW: readonly number[];
  readonly surgeLabel: string;
  readonly surgeS: number;
}

/** A load on the lines in the same proportions, but of another total. */
function scaledTo(lines: readonly Complex[], totalW: number): Complex[] {
  const now = lines.reduce((sum, line) => sum + line.re, 0);
  return now > 0
    ? lines.map((line) => scale(line, totalW / now))
    : lines.map(() => ({ re: totalW / lines.length, im: 0 }));
}

/** How the hardest-working module stands to the mean, and whether that was solved or is a planning allowance. */
export interface Spread {
  readonly factor: number;
  readonly isSolved: boolean;
}

/**
 * Solved from leads and bars at a real power on the lines, where the bank is known so far; else the allowance of the job. One
 * string shares with nobody.
 */
export function spreadAt(context: CheckContext, one: StackCase, bank: CompiledBank, totalW: number): Spread {
  if (bank.parallelCount <= 1) return { factor: 1, isSolved: true };
  const allowance = {
    factor: 1 + context.installation.defaults.moduleShareTolerance.value,
    isSolved: false,
  };
  const circuit = one.compiled.bankCircuit();
  const { supply } = context.installation;
  if (!circuit.known || typeof circuit.value === 'string' || !supply.known) return allowance;
  const lines = scaledTo(one.board.continuous.knownPart, totalW);
  const powers = unitPowersW(
    one.compiled,
    supply.value,
    one.type.efficiency,
    lines,
    context.mode.lostUnit?.unitId,
  );
  const share = shareBank(circuit.value, powers);
  if (share.kind !== 'solved') return allowance;
  return { factor: Math.max(1, ...share.modules.map((module) => module.share)), isSolved: true };
}

/** Which of the two a working has used. */
export const spreadWords = ({ isSolved }: Spread): string =>
  isSolved
    ? 'share of the hardest-working module against the mean, solved'
    : 'planned share of the hardest-working module against the mean';

/** Runs a measurement for each bank whose modules share; what is missing to solve the network is one `unknown` that names it. */
export function eachSharingBank(
  check: string,
  context: CheckContext,
  unit: string,
  load: 'steady' | 'surge',
  measure: (one: SharingCase) => Measurement | undefined,
): Finding[] {
  return eachStack(check, context, unit, (one) => {
    const { compiled, board, type, capability } = one;
    const found = compiled.bankCircuit();
    if ((found.known && typeof found.value === 'string') || capability.stopped) return [];
    const { supply } = context.installation;
    const missing: Path[] = [
      ...(found.known ? [] : found.missing),
      ...(load === 'steady' ? board.continuous.missing : board.starts.missing),
    ];
    if (!found.known || typeof found.value === 'string' || !supply.known || missing.length > 0)
      return [
        {
          subject: bankSubject(compiled),
          value: undefined,
          limit: undefined,
          unit,
          missing,
          working: () => NO_WORKING,
        },
      ];
    const lines = board.continuous.knownPart;
    const start = board.largestStartW;
    const steadyTotalW = lines.reduce((sum, line) => sum + line.re, 0);
    const powers = (at: readonly Complex[]): number[] =>
      unitPowersW(compiled, supply.value, type.efficiency, at, context.mode.lostUnit?.unitId);
    return [
      measure({
        ...one,
        circuit: found.value,
        steadyW: powers(lines),
        surgeW: powers(scaledTo(lines, Math.max(start?.watts ?? 0, steadyTotalW))),
        surgeLabel: start?.label ?? 'nothing',
        surgeS: start?.durationS ?? 0,
      }),
    ];
  });
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

/** A measurement for a bank that cannot give what is asked: over, with what it can give. */
export function tooMuch(
  one: SharingCase,
  share: BankShare,
  askedW: readonly number[],
): Measurement | undefined {
  if (share.kind !== 'too-much') return undefined;
  const asked = askedW.reduce((sum, watts) => sum + watts, 0);
  return {
    subject: bankSubject(one.compiled),
    value: asked,
    limit: share.deliverableW,
    unit: 'W',
    data: { what: 'asked of the bank', label: one.surgeLabel, module: 'all', inverter: 'all' },
    working: () => ({
      ...NO_WORKING,
      source: SHARING_SOURCE,
      notes: ['Past the largest power a bank can give, more current only brings less voltage.'],
    }),
  };
}
