import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, mapKnown } from '../../values/known.ts';
import type { CompiledBank } from './bank.ts';
import { restingV } from './bankCircuit.ts';
import { floorSoc } from './nearEmpty.ts';

/** A series stack as one source, where discharge ends: resting voltage and inner resistance of all its modules. */
export interface StringAtRest {
  readonly emfV: number;
  readonly ohm: number;
}

/** U = n · U_rest(floor), not above nominal; R = n · R_module. Leads are left out: they are short against so many cells. */
export function stringAtRest({ stack }: CompiledStack, bank: CompiledBank): Known<StringAtRest> {
  const stated = typeof stack.bank === 'object' ? stack.bank : undefined;
  const { type, seriesCount, nominalV } = bank;
  return mapKnown(
    all({
      cutoffSoc: field(stated?.cutoffSoc, 'stacks', stack.id, 'bank', 'cutoffSoc'),
      milliohm: field(type.internalMilliohm, 'types', type.id, 'internalMilliohm'),
      curve: field(type.openCircuit, 'types', type.id, 'openCircuit'),
    }),
    ({ cutoffSoc, milliohm }) => ({
      emfV: Math.min(nominalV, seriesCount * (restingV(type, floorSoc(cutoffSoc, type)) ?? type.nominalV)),
      ohm: (seriesCount * milliohm) / 1000,
    }),
  );
}
