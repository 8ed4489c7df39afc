import { leadSizeWords } from './leadSizes.ts';
import type { Insulation, Method } from './cableKinds.ts';

interface Responsible {
  readonly at: string;
  readonly id: string;
  readonly value: number;
  readonly reason: string;
  readonly by: string;
}

/** What a size carries, A, in place of its row in the table of a profile. */
interface AmpacityValue extends Responsible {
  readonly table: 'ampacity';
  readonly insulation: Insulation;
  readonly areaMm2: number;
  /** Of a metric insulation; the North American table has neither. */
  readonly method?: Method | undefined;
  readonly loadedConductors?: 2 | 3 | undefined;
}

/** The factor of air up to a temperature, for one insulation. */
interface AmbientValue extends Responsible {
  readonly table: 'ambient';
  readonly insulation: Insulation;
  readonly upTo: number;
}

/** The factor of circuits bunched together, or of conductors in a raceway, up to so many. */
interface GroupingValue extends Responsible {
  readonly table: 'grouping';
  readonly upTo: number;
}

/** A value that a licensed person has put in place of one of a code table, by name and with a reason. */
export type TableValue = AmpacityValue | AmbientValue | GroupingValue;

export interface StepRow {
  readonly upTo: number;
  readonly factor: number | null;
  /** Who has put it there; undefined for a row of the table. */
  readonly own?: TableValue;
}

/** The row of a stepped table, rising, that holds: the next one up is the cautious side; own rows stand in place of those of the same step. */
export function stepUp(
  rows: readonly StepRow[],
  own: readonly (AmbientValue | GroupingValue)[],
  at: number,
): StepRow | undefined {
  if (own.length === 0) return rows.find(({ upTo }) => upTo >= at);
  const merged = [
    ...rows.filter(({ upTo }) => !own.some((one) => one.upTo === upTo)),
    ...own.map((one): StepRow => ({ upTo: one.upTo, factor: one.value, own: one })),
  ];
  return merged.reduce<StepRow | undefined>(
    (best, row) => (row.upTo >= at && (best === undefined || row.upTo < best.upTo) ? row : best),
    undefined,
  );
}

/** What a table value stands for, in words. */
export function tableValueLabel(one: TableValue): string {
  switch (one.table) {
    case 'ampacity': {
      const how = one.method === undefined ? '' : `, ${one.method}, ${one.loadedConductors ?? ''} loaded`;
      return `Carries, ${leadSizeWords(one.areaMm2)}, ${one.insulation}${how}`;
    }
    case 'ambient':
      return `Air up to ${one.upTo} °C, ${one.insulation}`;
    case 'grouping':
      return `Grouping up to ${one.upTo}`;
  }
}
