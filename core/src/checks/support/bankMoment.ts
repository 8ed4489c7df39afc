import { bankDraw } from '../../compile/bankDraw.ts';
import { isOwnBank } from '../../compile/ownBank.ts';
import type { CheckContext } from '../check.ts';
import type { StackCase } from './eachLine.ts';

/** What one bank feeds at one moment. */
export interface BankMoment {
  /** AC power. */
  readonly watts: number;
  /** So many times the limits of its hardest-working inverter is what the bank can be asked for. */
  readonly evenUnits: number;
  readonly linesW: readonly number[];
  /** Undefined for good. */
  readonly durationS: number | undefined;
  readonly label: string;
}

/** The continuous load as one bank sees it. */
export function steadyMoment(context: CheckContext, one: StackCase): BankMoment {
  const linesW = one.board.continuous.knownPart.map((line) => line.re);
  return {
    ...bankDraw({ ...one, lostUnitId: context.mode.lostUnit?.unitId }, linesW),
    linesW,
    durationS: undefined,
    label: 'continuous load',
  };
}

/** The start that takes the most real power from one bank; undefined where nothing starts. */
export function startMoment(context: CheckContext, one: StackCase): BankMoment | undefined {
  const lostUnitId = context.mode.lostUnit?.unitId;
  let most: BankMoment | undefined;
  for (const { linesW, durationS, label } of one.board.batteryStarts) {
    const draw = bankDraw({ ...one, lostUnitId }, linesW);
    if (most === undefined || draw.watts > most.watts) most = { ...draw, linesW, durationS, label };
  }
  return most;
}

/** Whose power it is, for a working. */
export const powerWords = ({ compiled }: StackCase): string =>
  isOwnBank(compiled.stack)
    ? 'real power of the hardest-working inverter, which has a bank of its own'
    : 'real power of all backed-up lines';
