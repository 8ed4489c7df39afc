import type { BankCircuit } from './bankCircuit.ts';
import type { BankShare } from './bankShare.ts';

/**
 * What flows through each named resistance of a solved bank, A, in the order of its branches; positive while the bank discharges.
 * I = (U_a − U_b) / R for a resistor, the module's own current for what lies in series with it. NaN for a resistance of nought: no
 * voltage tells its current.
 */
export function branchCurrents(
  { network, branches }: BankCircuit,
  share: Extract<BankShare, { kind: 'solved' }>,
): Float64Array {
  return Float64Array.from(branches, ({ at }) => {
    if ('source' in at) return share.modules[at.source]?.currentA ?? NaN;
    const resistor = network.resistors[at.resistor];
    if (resistor === undefined || resistor.ohm === 0) return NaN;
    const { from, to, ohm } = resistor;
    return ((share.nodesV[from] ?? 0) - (share.nodesV[to] ?? 0)) / ohm;
  });
}
