import type { Circuit, Partition } from '../../installation/facts.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { type Known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import { type Board, compileBoard } from './board.ts';
import { buildingPeakW, meterPeakW } from './meterPeak.ts';

const isSameList = (a: readonly Partition[], b: readonly Partition[]): boolean =>
  a.length === b.length && a.every((partition, at) => partition === b[at]);

/** The load of some partitions of a set together. Most designs have one and the same board in many places: it is compiled once. */
export const boardOf = (compiled: CompiledStack, fed: readonly Partition[]): Known<Board> =>
  isSameList(fed, compiled.partitions) ? islandBoard(compiled) : compile(compiled, fed);

function compile(compiled: CompiledStack, fed: readonly Partition[]): Known<Board> {
  const { circuits, meters, defaults } = compiled;
  return mapKnown(compiled.supply, (supply) => {
    const ids = new Set(fed.map((partition) => partition.id));
    const own: Circuit[] = circuits.filter(
      (circuit) => circuit.partitionId !== undefined && ids.has(circuit.partitionId),
    );
    return compileBoard(own, supply, {
      electronicThirdHarmonic: defaults.electronicThirdHarmonic.value,
      meterPeakW: meterPeakW(meters, ids, defaults.meterCrest.value),
    });
  });
}

/** The load a set carries in island until a stage is shed; unknown while the supply is. */
export const islandBoard = remember((compiled: CompiledStack) => compile(compiled, compiled.partitions));

/** Everything that draws through a set on grid: also what is locked out or shed in island. */
export const onGridBoard = remember((compiled: CompiledStack) => boardOf(compiled, compiled.behind));

/** What is live behind a set while a generator runs. */
export const generatorBoard = remember((compiled: CompiledStack) =>
  boardOf(compiled, compiled.withGenerator),
);

/** Everything the service feeds on grid. */
export const buildingBoard = remember((installation: Installation) =>
  mapKnown(installation.supply, (supply) =>
    compileBoard(installation.circuits, supply, {
      electronicThirdHarmonic: installation.defaults.electronicThirdHarmonic.value,
      meterPeakW: buildingPeakW(installation.meters, installation.defaults.meterCrest.value),
    }),
  ),
);
