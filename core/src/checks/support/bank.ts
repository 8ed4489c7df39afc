import type { CompiledBank } from '../../compile/bank.ts';
import type { CompiledStack } from '../../compile/installation.ts';
import { type Known, known } from '../../design/known.ts';

/** The bank of a stack; undefined where the design says there is none, so that bank checks have nothing to say. */
export function bankOf(compiled: CompiledStack): Known<CompiledBank> | undefined {
  const { bank } = compiled;
  if (!bank.known) return bank;
  return bank.value === 'none' ? undefined : known(bank.value);
}
