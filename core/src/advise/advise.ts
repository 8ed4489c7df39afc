import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import { adviseCharger } from './charger.ts';
import { adviseBalance } from './balance.ts';
import type { Progress } from './balance/problem.ts';
import { advisePartition } from './partition.ts';
import type { Advice } from './proposal.ts';
import { adviseStagger } from './stagger.ts';

export const ADVICE_KINDS = ['balance', 'partition', 'stagger', 'charger'] as const;
export type AskedAdvice = (typeof ADVICE_KINDS)[number];

/** Works out the proposals of one kind. Pure: the same design gives the same proposals anywhere. */
export function advise(
  kind: AskedAdvice,
  design: Design,
  catalogue: readonly EquipmentType[],
  onProgress: Progress = () => undefined,
): Advice {
  switch (kind) {
    case 'balance':
      return adviseBalance(design, catalogue, onProgress);
    case 'partition':
      return advisePartition(design, catalogue, onProgress);
    case 'stagger':
      return adviseStagger(design, catalogue);
    case 'charger':
      return adviseCharger(design, catalogue);
  }
}
