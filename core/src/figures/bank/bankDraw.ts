import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { type EfficiencyFigures, efficiencyAt } from '../capability/efficiency.ts';
import { unitPowersW } from '../capability/unitPower.ts';

/** Where the power comes from and who is there to take it. */
export interface DrawInputs {
  readonly compiled: CompiledStack;
  readonly supply: Supply;
  readonly type: EfficiencyFigures;
  readonly lostUnitId: string | undefined;
}

/** What is drawn from one bank. */
export interface BankDraw {
  /** AC power that it feeds, W: of all lines where it serves all inverters, else of the hardest-working one. */
  readonly watts: number;
  /**
   * Over the part of its hardest-working inverter: so many times that inverter's own limits is what the bank can be asked for. The
   * number of inverters where they work alike.
   */
  readonly evenUnits: number;
}

/** What one bank gives for a real power on each line. */
export function bankDraw(
  { compiled, supply, lostUnitId }: Omit<DrawInputs, 'type'>,
  linesW: readonly number[],
): BankDraw {
  const units = unitPowersW(compiled, supply, () => 1, linesW, lostUnitId);
  const hardest = Math.max(0, ...units);
  if (isOwnBank(compiled.stack)) return { watts: hardest, evenUnits: 1 };
  const watts = linesW.reduce((sum, line) => sum + line, 0);
  const present = compiled.stack.units.filter((unit) => unit.id !== lostUnitId).length;
  return { watts, evenUnits: hardest > 0 ? watts / hardest : present };
}

/** What a bank gives to each of its inverters. */
export interface InverterDraw {
  /** DC power, in the order of the units, W. */
  readonly powersW: readonly number[];
  /** Whose bank it is, where each inverter has its own. */
  readonly ofUnitId: string | undefined;
}

/**
 * What a bank gives to its inverters. One case where it serves all; where each has its own the banks are alike, and each inverter
 * in turn is the only one that draws.
 */
export function bankLoadsW(
  { compiled, supply, type, lostUnitId }: DrawInputs,
  linesW: readonly number[],
): readonly InverterDraw[] {
  const units = unitPowersW(compiled, supply, (watts) => efficiencyAt(type, watts), linesW, lostUnitId);
  if (!isOwnBank(compiled.stack)) return [{ powersW: units, ofUnitId: undefined }];
  return compiled.stack.units.flatMap((unit, at) =>
    unit.id === lostUnitId
      ? []
      : [{ powersW: units.map((watts, index) => (index === at ? watts : 0)), ofUnitId: unit.id }],
  );
}
