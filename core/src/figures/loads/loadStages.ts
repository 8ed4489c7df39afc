import type { Circuit } from '../../installation/facts.ts';
import { add, type Complex, magnitude, ZERO } from '../../network/complex.ts';
import { circuitPower } from './circuitPower.ts';
import { importanceOf, RANK } from './importance.ts';
import { factorFinder } from './loads.ts';
import type { Supply } from '../../installation/supply.ts';

/** Circuits that are closed together onto a generator that is running already. */
export interface LoadStage {
  readonly circuits: readonly Circuit[];
  readonly va: number;
  /** Held by one circuit that is larger than the step by itself. */
  readonly isTooLarge: boolean;
}

/** What nobody has ranked comes after what somebody called "should". */
const rankOf = (circuit: Circuit): number => RANK[importanceOf(circuit) ?? 'could'];

/**
 * Divides the load into steps that a generator takes one after the other: what matters most first, within that the largest first,
 * each put into the first stage that has room for it. Only the lines that the set reaches count.
 *
 * @param stepVa largest step of the set
 */
export function loadStages(
  circuits: readonly Circuit[],
  supply: Supply,
  reached: readonly number[],
  stepVa: number,
): LoadStage[] {
  const factorsOf = factorFinder(supply);
  const loads = circuits
    .map((circuit) => {
      const { expected } = circuitPower(circuit, supply, factorsOf);
      return { circuit, power: reached.map((line) => expected[line] ?? ZERO).reduce(add, ZERO) };
    })
    .filter(({ power }) => magnitude(power) > 0)
    .sort((a, b) => rankOf(a.circuit) - rankOf(b.circuit) || magnitude(b.power) - magnitude(a.power));
  const stages: { circuits: Circuit[]; power: Complex }[] = [];
  for (const { circuit, power } of loads) {
    const room = stages.find((stage) => magnitude(add(stage.power, power)) <= stepVa);
    if (room === undefined) stages.push({ circuits: [circuit], power });
    else {
      room.circuits.push(circuit);
      room.power = add(room.power, power);
    }
  }
  return stages.map((stage) => ({
    circuits: stage.circuits,
    va: magnitude(stage.power),
    isTooLarge: magnitude(stage.power) > stepVa,
  }));
}
