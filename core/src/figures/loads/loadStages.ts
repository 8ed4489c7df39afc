import type { Circuit } from '../../installation/facts.ts';
import { add, type Complex, magnitude, ZERO } from '../../network/complex.ts';
import type { GeneratorRating } from '../generator/rating.ts';
import { circuitPower } from './circuitPower.ts';
import { importanceOf, RANK } from './importance.ts';
import { factorFinder } from './loads.ts';
import type { Supply } from '../../installation/supply.ts';

/** Circuits that are closed together onto a generator that is running already. */
export interface LoadStage {
  readonly circuits: readonly Circuit[];
  readonly watts: number;
  /** Held by one circuit that is larger than the step by itself. */
  readonly isTooLarge: boolean;
}

/** What nobody has ranked comes after what somebody called "should". */
const rankOf = (circuit: Circuit): number => RANK[importanceOf(circuit) ?? 'could'];

const wattsOf = (powers: readonly Complex[]): number => powers.reduce((sum, power) => sum + power.re, 0);

/**
 * Divides the load into steps that a generator takes one after the other: what matters most first, within that the largest first,
 * each put into the first stage that has room for it on every line (VA) and in all (W). Only the lines that the set reaches count.
 *
 * @param share largest step of the set, as a share of both its ratings
 */
export function loadStages(
  circuits: readonly Circuit[],
  supply: Supply,
  reached: readonly number[],
  rating: GeneratorRating,
  share: number,
): LoadStage[] {
  const factorsOf = factorFinder(supply);
  const fits = (powers: readonly Complex[]): boolean =>
    powers.every((power) => magnitude(power) <= rating.perLineVa * share) &&
    (!rating.engineW.known || wattsOf(powers) <= rating.engineW.value * share);
  const together = (some: readonly Complex[], more: readonly Complex[]): Complex[] =>
    some.map((power, index) => add(power, more[index] ?? ZERO));
  const loads = circuits
    .map((circuit) => {
      const { expected } = circuitPower(circuit, supply, factorsOf);
      return { circuit, powers: reached.map((line) => expected[line] ?? ZERO) };
    })
    .filter(({ powers }) => powers.some((power) => magnitude(power) > 0))
    .sort((a, b) => rankOf(a.circuit) - rankOf(b.circuit) || wattsOf(b.powers) - wattsOf(a.powers));
  const stages: { circuits: Circuit[]; powers: Complex[] }[] = [];
  for (const { circuit, powers } of loads) {
    const room = stages.find((stage) => fits(together(stage.powers, powers)));
    if (room === undefined) stages.push({ circuits: [circuit], powers });
    else {
      room.circuits.push(circuit);
      room.powers = together(room.powers, powers);
    }
  }
  return stages.map((stage) => ({
    circuits: stage.circuits,
    watts: wattsOf(stage.powers),
    isTooLarge: !fits(stage.powers),
  }));
}
