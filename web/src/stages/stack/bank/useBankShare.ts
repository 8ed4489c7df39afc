import { type BankAtLoad, bankAtLoad, type CompiledStack, modesOf, type Path } from '@bastion/core';
import { useMemo } from 'react';
import { useJob, useOpenJob } from '../../../state/job.ts';

export type BankLoadChoice = 'continuous' | 'largest-start' | 'typed';

export type Shared =
  | { readonly kind: 'none' }
  /** What was typed is no load. */
  | { readonly kind: 'no-load' }
  | { readonly kind: 'unknown'; readonly missing: readonly Path[] }
  | ({ readonly kind: 'known'; readonly lostUnitId: string | undefined } & BankAtLoad);

/**
 * The bank of a stack solved in the mode that is looked at: at the continuous load, the hardest start, or a load that a person
 * types. Where each inverter has its own bank: that of one inverter, or the hardest-working one.
 */
export function useBankShare(
  compiled: CompiledStack,
  choice: BankLoadChoice,
  typedW: number | undefined,
  ofUnitId: string | undefined,
): Shared {
  const { analysis } = useOpenJob();
  const modeId = useJob((store) => store.modeId);
  const lost = modesOf(analysis.installation).find((mode) => mode.id === modeId)?.lostUnit;
  const lostUnitId = lost?.stackId === compiled.stack.id ? lost.unitId : undefined;
  return useMemo((): Shared => {
    if (choice === 'typed' && typedW === undefined) return { kind: 'no-load' };
    const load = choice === 'typed' ? { kind: choice, watts: typedW ?? 0 } : { kind: choice };
    const found = bankAtLoad(compiled, load, { lostUnitId, ofUnitId });
    if (!found.known) return { kind: 'unknown', missing: found.missing };
    return found.value === 'none' ? { kind: 'none' } : { kind: 'known', lostUnitId, ...found.value };
  }, [compiled, choice, typedW, lostUnitId, ofUnitId]);
}
