import { efficiencyAt } from '../../figures/capability/efficiency.ts';
import { bankDraw } from '../../figures/bank/bankDraw.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import type { StackCase } from './eachLine.ts';
import { remember } from '../../values/remember.ts';

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
export const steadyMoment = remember((one: StackCase): BankMoment => {
  const linesW = one.board.continuous.knownPart.map((line) => line.re);
  return { ...bankDraw(one, linesW), linesW, durationS: undefined, label: 'continuous load' };
});

/** Efficiency of the hardest-working inverter at what it gives then. */
export const efficiencyOf = (
  { type }: StackCase,
  { watts, evenUnits }: { readonly watts: number; readonly evenUnits: number },
): number => efficiencyAt(type, watts / evenUnits);

/** Whose power it is, for a working. */
export const powerWords = ({ compiled }: StackCase): string =>
  isOwnBank(compiled.stack)
    ? 'real power of the hardest-working inverter, which has a bank of its own'
    : 'real power of all backed-up lines';
