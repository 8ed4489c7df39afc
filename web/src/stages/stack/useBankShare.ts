import {
  type BankCircuit,
  type BankShare,
  type CompiledStack,
  type Known,
  type Path,
  shareBank,
  unitPowersW,
} from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';

export type BankLoad = 'steady' | 'surge' | 'typed';

export type Shared =
  | { readonly kind: 'none' }
  /** What was typed is no load. */
  | { readonly kind: 'no-load' }
  | { readonly kind: 'unknown'; readonly missing: readonly Path[] }
  | {
      readonly kind: 'known';
      readonly circuit: BankCircuit;
      readonly share: BankShare;
      readonly loadW: number;
    };

const missingOf = (...list: readonly Known<unknown>[]): Path[] =>
  list.flatMap((one) => (one.known ? [] : [...one.missing]));

/** The bank of a stack solved at a load: the continuous one, the largest start, or one that a person types. */
export function useBankShare(compiled: CompiledStack, load: BankLoad, typedW: number | undefined): Shared {
  const { analysis } = useOpenJob();
  const { supply } = analysis.installation;
  return useMemo((): Shared => {
    const circuit = compiled.bankCircuit();
    if (circuit.known && typeof circuit.value === 'string') return { kind: 'none' };
    const { type, board } = compiled;
    if (!circuit.known || typeof circuit.value === 'string' || !type.known || !supply.known || !board.known)
      return { kind: 'unknown', missing: missingOf(circuit, type, supply, board) };
    const { continuous, largestStartW } = board.value;
    const asked =
      load === 'surge' ? [...continuous.missing, ...board.value.starts.missing] : continuous.missing;
    if (load !== 'typed' && asked.length > 0) return { kind: 'unknown', missing: asked };
    if (load === 'typed' && typedW === undefined) return { kind: 'no-load' };
    const lines = continuous.knownPart;
    const steadyW = lines.reduce((sum, line) => sum + line.re, 0);
    const loadW =
      load === 'steady'
        ? steadyW
        : load === 'surge'
          ? Math.max(steadyW, largestStartW?.watts ?? 0)
          : (typedW ?? 0);
    const scaled = lines.map(({ re }) => ({
      re: steadyW > 0 ? (re * loadW) / steadyW : loadW / Math.max(1, lines.length),
      im: 0,
    }));
    const powers = unitPowersW(compiled, supply.value, type.value.efficiency, scaled);
    return { kind: 'known', circuit: circuit.value, share: shareBank(circuit.value, powers), loadW };
  }, [compiled, supply, load, typedW]);
}
