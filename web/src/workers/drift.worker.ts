import {
  compile,
  type Design,
  driftOf,
  type Drift,
  type Known,
  SAMPLE_TYPES,
  unitPowersW,
} from '@bastion/core';
import { expose } from 'comlink';

const nothing: Known<Drift> = { known: false, missing: [] };

const work = {
  /** Drift of the bank of a stack over a discharge at the continuous load, from full to the cut-off. */
  drift: (design: Design, stackId: string): Known<Drift> => {
    const installation = compile(design, SAMPLE_TYPES);
    const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
    if (compiled === undefined) return nothing;
    const circuit = compiled.bankCircuit();
    const { type, board, stack } = compiled;
    const missing = [circuit, type, board, installation.supply].flatMap((one) =>
      one.known ? [] : one.missing,
    );
    if (!circuit.known || typeof circuit.value === 'string') return { known: false, missing };
    if (!type.known || !board.known || !installation.supply.known) return { known: false, missing };
    const { continuous } = board.value;
    const cutoffSoc = typeof stack.bank === 'object' ? stack.bank.cutoffSoc : undefined;
    if (cutoffSoc === undefined)
      return { known: false, missing: [...continuous.missing, ['stacks', stackId, 'bank', 'cutoffSoc']] };
    if (continuous.missing.length > 0) return { known: false, missing: continuous.missing };
    return driftOf({
      circuit: circuit.value,
      powersW: unitPowersW(compiled, installation.supply.value, type.value.efficiency, continuous.knownPart),
      startSoc: 1,
      cutoffSoc,
    });
  },
};
export type DriftWork = typeof work;

expose(work);
