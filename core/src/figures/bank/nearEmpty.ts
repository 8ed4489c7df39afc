import { type Known, known, unknownAt } from '../../values/known.ts';
import type { Stack } from '../../installation/facts.ts';
import type { BatteryType } from '../../catalogue/batteryType.ts';
import { type BankCircuit, restingV } from './bankCircuit.ts';

/** A circuit with other resting voltages of its modules, in their order. */
export function withVoltages(
  circuit: BankCircuit,
  emfV: (module: BankCircuit['modules'][number], index: number) => number,
): BankCircuit {
  const sources = [...circuit.network.sources];
  const modules = circuit.modules.map((module, index) => {
    const changed = emfV(module, index);
    const source = sources[module.source];
    if (source !== undefined) sources[module.source] = { ...source, emfV: changed };
    return { ...module, emfV: changed };
  });
  return { ...circuit, modules, network: { ...circuit.network, sources } };
}

/** Where discharge ends: the cut-off of the bank, or what the type leaves unusable where that is more. */
export const floorSoc = (cutoffSoc: number, type: BatteryType): number =>
  Math.max(cutoffSoc, 1 - type.usableFraction);

/**
 * The bank as a start finds it when it is nearly empty: each module at its resting voltage where discharge ends, if that is below
 * its nominal voltage and below where it stands now. Not known without the cut-off or the resting curve of a type.
 */
export function nearEmpty(circuit: BankCircuit, { bank, id }: Stack): Known<BankCircuit> {
  if (typeof bank !== 'object') return known(circuit);
  const { cutoffSoc } = bank;
  const bare = new Set(
    circuit.modules.flatMap(({ type }) => (type.openCircuit === undefined ? [type.id] : [])),
  );
  const missing = [
    ...(cutoffSoc === undefined ? [['stacks', id, 'bank', 'cutoffSoc']] : []),
    ...[...bare].map((typeId) => ['types', typeId, 'openCircuit']),
  ];
  if (cutoffSoc === undefined || missing.length > 0) return unknownAt(...missing);
  return known(
    withVoltages(circuit, ({ type, emfV }) =>
      Math.min(emfV, type.nominalV, restingV(type, floorSoc(cutoffSoc, type)) ?? emfV),
    ),
  );
}
