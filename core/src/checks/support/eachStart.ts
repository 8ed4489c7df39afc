import type { CompiledBank } from '../../figures/bank/bank.ts';
import type { CheckContext, Measured } from '../check.ts';
import type { Found } from '../finding.ts';
import { bankOf } from './bank.ts';
import { bankUnknown } from './bankDemand.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { type StartCurrents, startCurrents } from './startCurrent.ts';

/** Holds what flows during starts against something, once per bank. Where nothing starts, or a bank cannot give it, there is nothing to hold. */
export function eachStart<Key extends string = never>(
  check: string,
  context: CheckContext,
  measure: (
    one: StackCase,
    bank: CompiledBank,
    currents: Exclude<StartCurrents, { kind: 'too-much' }>,
  ) => Measured<Key> | undefined | readonly (Measured<Key> | undefined)[],
): Found<Key>[] {
  return eachStack(check, context, 'A', (one): (Measured<Key> | undefined)[] => {
    const found = bankOf(one.compiled);
    if (found === undefined) return [];
    if (!found.known) return [bankUnknown(one, found.missing)];
    const { missing } = one.board.starts;
    if (missing.length > 0) return [bankUnknown(one, missing)];
    const currents = startCurrents(context, one, found.value);
    // What a bank cannot give at all is a finding of its own: there is no current to judge.
    if (currents.kind === 'too-much') return [];
    return [measure(one, found.value, currents)].flat();
  });
}
