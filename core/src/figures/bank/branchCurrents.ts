import type { BankCircuit } from './bankCircuit.ts';
import type { Branch } from './bankLay.ts';
import type { BankShare } from './bankShare.ts';

/** A resistance of the bank with what flows through it. Positive while the bank discharges. */
export interface BranchCurrent {
  readonly branch: Branch;
  readonly currentA: number;
}

/**
 * What flows through each named resistance of a solved bank: I = (U_a − U_b) / R for a resistor, the module's own current for what
 * lies in series with it. A resistance of nought has no voltage to tell its current by and is left out.
 */
export function branchCurrents(
  circuit: BankCircuit,
  share: Extract<BankShare, { kind: 'solved' }>,
): BranchCurrent[] {
  const { network, branches } = circuit;
  return branches.flatMap((branch): BranchCurrent[] => {
    if ('source' in branch.at) {
      const currentA = share.modules[branch.at.source]?.currentA;
      return currentA === undefined ? [] : [{ branch, currentA }];
    }
    const resistor = network.resistors[branch.at.resistor];
    if (resistor === undefined || resistor.ohm === 0) return [];
    const { from, to, ohm } = resistor;
    return [{ branch, currentA: ((share.nodesV[from] ?? 0) - (share.nodesV[to] ?? 0)) / ohm }];
  });
}
