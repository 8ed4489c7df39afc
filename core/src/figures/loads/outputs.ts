import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Partition } from '../../installation/facts.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Known } from '../../values/known.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import type { Board } from './board.ts';
import { boardOf } from './boards.ts';

/** One backup output of a set with everything that hangs on it in island. */
export interface OutputLoad {
  /** Id of the output; of the partition where nobody said which output it hangs on. */
  readonly id: string;
  readonly name: string;
  readonly partitions: readonly Partition[];
  readonly board: Known<Board>;
  /** Largest current of one unit on each line, A; undefined with the places that do not say it. */
  readonly limitA: number | undefined;
  readonly missing: readonly Path[];
  /** Largest current of one unit for a short time, where the type states one for this output. */
  readonly surgeA: number | undefined;
}

function outputsOf(type: InverterType, partitions: readonly Partition[]): Omit<OutputLoad, 'board'>[] {
  if (type.outputs === undefined)
    return [
      {
        id: 'backup',
        name: 'backup output',
        partitions,
        limitA: type.backupPortA,
        missing: type.backupPortA === undefined ? [['types', type.id, 'backupPortA']] : [],
        surgeA: undefined,
      },
    ];
  const named = type.outputs.map(({ id, name, limitA, surgeA }) => ({
    id,
    name,
    partitions: partitions.filter(({ outputId }) => outputId === id),
    limitA,
    missing: [],
    surgeA,
  }));
  const ids = new Set(type.outputs.map(({ id }) => id));
  const unsaid = partitions
    .filter(({ outputId }) => outputId === undefined || !ids.has(outputId))
    .map((partition) => ({
      id: partition.id,
      name: 'output',
      partitions: [partition],
      limitA: undefined,
      missing: [['partitions', partition.id, 'outputId']],
      surgeA: undefined,
    }));
  return [...named, ...unsaid].filter((output) => output.partitions.length > 0);
}

const loads = remember((compiled: CompiledStack): readonly OutputLoad[] =>
  compiled.type.known
    ? outputsOf(compiled.type.value, compiled.partitions).map((output) => ({
        ...output,
        board: boardOf(compiled, output.partitions),
      }))
    : [],
);

/** The backup outputs of a set that anything hangs on in island, each with the sum of what does. */
export const outputLoads = (compiled: CompiledStack): readonly OutputLoad[] => loads(compiled);
