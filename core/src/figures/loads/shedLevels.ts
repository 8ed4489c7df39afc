import type { Partition } from '../../installation/facts.ts';
import type { Path } from '../../values/problem.ts';

/** What is wrong with the level of a shed stage, as the end of a sentence about it. */
export interface ShedTrouble {
  readonly partition: Partition;
  readonly reason: string;
  readonly path: Path;
}

const percent = (soc: number): string => `${Math.round(soc * 100)} %`;

/** Stages that drop by state of charge, in the order in which they go. */
export const levelStages = (partitions: readonly Partition[]): readonly Partition[] =>
  partitions
    .filter(({ kind, shedWhen }) => kind === 'shed' && shedWhen === 'below-soc')
    .sort((a, b) => (a.shedStage ?? 0) - (b.shedStage ?? 0));

/**
 * Levels that contradict each other or the level at which discharge ends: a stage at or below it never drops, and one that goes first by
 * its number must not stand lower than one that goes after it. A level that nobody has stated contradicts nothing.
 */
export function shedTroubles(partitions: readonly Partition[], floorSoc: number | undefined): ShedTrouble[] {
  const stages = levelStages(partitions);
  return stages.flatMap((partition, at): ShedTrouble[] => {
    const { id, shedBelowSoc: level, shedStage } = partition;
    if (level === undefined) return [];
    const path = ['partitions', id, 'shedBelowSoc'];
    if (floorSoc !== undefined && level <= floorSoc)
      return [
        {
          partition,
          path,
          reason: `drops below ${percent(level)}, and discharge ends at ${percent(floorSoc)}: it never drops`,
        },
      ];
    const before = stages
      .slice(at + 1)
      .find((one) => one.shedStage !== shedStage && (one.shedBelowSoc ?? 0) > level);
    return before === undefined
      ? []
      : [
          {
            partition,
            path,
            reason: `is stage ${shedStage ?? '?'} and drops below ${percent(level)}, after ${before.name}, stage ${before.shedStage ?? '?'}, which drops below ${percent(before.shedBelowSoc ?? 0)}`,
          },
        ];
  });
}
