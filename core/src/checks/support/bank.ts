import { bankOfSet } from '../../figures/bank/ofSet.ts';
import type { CompiledBank } from '../../figures/bank/bank.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { type Known, known } from '../../values/known.ts';

/** The bank of a stack; undefined where the design says there is none, so that bank checks have nothing to say. */
export function bankOf(compiled: CompiledStack): Known<CompiledBank> | undefined {
  const bank = bankOfSet(compiled);
  if (!bank.known) return bank;
  return bank.value === 'none' ? undefined : known(bank.value);
}
