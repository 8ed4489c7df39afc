import {
  type Advice,
  advise,
  analyse,
  analysisCauses,
  type AskedAdvice,
  decidesOn,
  type Design,
  type EquipmentType,
  type Mend,
  mendsOf,
  SAMPLE_TYPES,
} from '@bastion/core';
import { expose } from 'comlink';

/** What would clear a cause, and who decides where nothing does. */
export interface FoundMends {
  readonly mends: readonly Mend[];
  readonly decides: 'design' | 'customer';
}

const work = {
  advise: (kind: AskedAdvice, design: Design, onProgress: (share: number) => void): Advice =>
    advise(kind, design, SAMPLE_TYPES, onProgress),
  mends: (causeId: string, design: Design, catalogue: readonly EquipmentType[]): FoundMends => {
    const analysis = analyse(design, catalogue);
    const cause = analysisCauses(analysis).find(({ id }) => id === causeId);
    if (cause === undefined) return { mends: [], decides: 'design' };
    const mends = mendsOf(cause, analysis, catalogue);
    return { mends, decides: decidesOn(cause, mends) };
  },
};
export type AdviceWork = typeof work;

expose(work);
