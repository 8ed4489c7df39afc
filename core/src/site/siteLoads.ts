import { square } from '../values/power.ts';
import {
  factorFinder,
  itemPath,
  type LineFactors,
  runningItem,
  stepsOfStart,
} from '../figures/loads/loads.ts';
import type { StartStep } from '../codes/starts.ts';
import type { Circuit } from '../installation/facts.ts';
import type { Supply } from '../installation/supply.ts';
import type { Complex } from '../network/complex.ts';
import type { Path } from '../values/problem.ts';

/** Items that are alike, as the seconds after their supply comes need them. */
interface SiteItem {
  readonly factors: LineFactors;
  /** While they run, all of them at their demand. */
  readonly runningW: number;
  readonly runningVar: number;
  /** Running VA of all of them: what a multiple of their start counts from. */
  readonly wholeVa: number;
  readonly steps: readonly StartStep[];
}

/** A circuit of the simulated site. */
export interface SiteCircuit {
  readonly circuitId: string;
  readonly name: string;
  readonly partitionId: string | undefined;
  /** Closed so long after its board comes back in island, s. */
  readonly delayS: number;
  readonly items: readonly SiteItem[];
}

/** The circuits of an installation; items of which something is not known draw nothing, and their places are added to `missing`. */
export function siteCircuits(circuits: readonly Circuit[], supply: Supply, missing: Path[]): SiteCircuit[] {
  const factorsOf = factorFinder(supply);
  return circuits.map((circuit): SiteCircuit => {
    const items = circuit.items.flatMap((item): SiteItem[] => {
      const running = runningItem(circuit, item, factorsOf, missing);
      const steps = stepsOfStart(circuit, item, supply, missing);
      if (running === undefined) return [];
      if (item.demandFactor === undefined) {
        missing.push([...itemPath(circuit, item), 'demandFactor']);
        return [];
      }
      const count = running.quantity * item.demandFactor;
      return [
        {
          factors: running.factors,
          runningW: running.oneW * count,
          runningVar: running.oneVar * count,
          wholeVa: running.oneVa * running.quantity,
          steps: steps ?? [],
        },
      ];
    });
    const { id: circuitId, name, partitionId, startDelayS: delayS = 0 } = circuit;
    return { circuitId, name, partitionId, delayS, items };
  });
}

/** The step of a start that an item is in so long after its supply came; undefined once it runs. */
function stepAt(steps: readonly StartStep[], sinceS: number): StartStep | undefined {
  let until = 0;
  for (const step of steps) {
    until += step.durationS;
    if (sinceS < until) return step;
  }
  return undefined;
}

/**
 * Adds what a circuit draws so long after its supply came: S = multiple · S_running at the power factor of the start while it starts,
 * then its running power.
 *
 * @param into W and var of each line, added to
 */
export function addCircuit(
  circuit: SiteCircuit,
  sinceS: number,
  into: readonly { re: number; im: number }[],
): void {
  for (const { factors, runningW, runningVar, wholeVa, steps } of circuit.items) {
    const step = stepAt(steps, sinceS);
    const watts = step === undefined ? runningW : wholeVa * step.multiple * step.powerFactor;
    const vars =
      step === undefined ? runningVar : wholeVa * step.multiple * Math.sqrt(1 - square(step.powerFactor));
    into.forEach((sum, line) => {
      const factor: Complex | undefined = factors[line];
      if (factor === undefined) return;
      sum.re += watts * factor.re - vars * factor.im;
      sum.im += watts * factor.im + vars * factor.re;
    });
  }
}
