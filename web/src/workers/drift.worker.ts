import {
  bankAtLoad,
  compile,
  type Design,
  driftOf,
  type Drift,
  type Known,
  SAMPLE_TYPES,
} from '@bastion/core';
import { expose } from 'comlink';

const nothing: Known<Drift> = { known: false, missing: [] };

const work = {
  /** Drift of the bank of a stack over a discharge at the continuous load, from full to the cut-off. */
  drift: (design: Design, stackId: string): Known<Drift> => {
    const installation = compile(design, SAMPLE_TYPES);
    const compiled = installation.stacks.find(({ stack }) => stack.id === stackId);
    if (compiled === undefined) return nothing;
    const { bank } = compiled.stack;
    const cutoffSoc = typeof bank === 'object' ? bank.cutoffSoc : undefined;
    const found = bankAtLoad(compiled, { kind: 'continuous' });
    const missing = [
      ...(found.known ? [] : found.missing),
      ...(cutoffSoc === undefined ? [['stacks', stackId, 'bank', 'cutoffSoc']] : []),
    ];
    if (!found.known || found.value === 'none' || cutoffSoc === undefined) return { known: false, missing };
    const { circuit, powersW } = found.value;
    return driftOf({ circuit, powersW, startSoc: 1, cutoffSoc });
  },
};
export type DriftWork = typeof work;

expose(work);
