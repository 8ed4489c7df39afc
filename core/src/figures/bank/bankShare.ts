import { solveConstantPower } from '../../network/constantPower.ts';
import type { NetworkProblem } from '../../network/resistive.ts';
import type { BankCircuit, CircuitModule } from './bankCircuit.ts';

/** What one module gives. Positive while it discharges. */
export interface ModuleShare {
  readonly module: CircuitModule;
  readonly currentA: number;
  /** Current over the mean of the bank; 1 for all where they share evenly. 0 where nothing is drawn. */
  readonly share: number;
  /** Heat in the module and its leads. */
  readonly lossW: number;
}

export interface TapShare {
  readonly unitId: string;
  readonly currentA: number;
  /** At the inverter's terminals. */
  readonly voltageV: number;
}

export type BankShare =
  | {
      readonly kind: 'solved';
      readonly modules: readonly ModuleShare[];
      readonly taps: readonly TapShare[];
      /** Largest departure of a module from the mean, as a share of it. */
      readonly worstDeparture: number;
      readonly totalA: number;
      /** Voltage of each node of the network. */
      readonly nodesV: Float64Array;
      readonly iterations: number;
    }
  | { readonly kind: 'too-much'; readonly deliverableW: number; readonly iterations: number }
  | { readonly kind: 'no-answer'; readonly problem: NetworkProblem };

/** Below this mean current a share of it means nothing, A. */
const LEAST_MEAN_A = 1e-6;

/**
 * Current of each module for a DC power of each tap. Every module: I = (EMF − U) / R. The network is solved with the inverters
 * as constant power, so they draw more as the voltage sags.
 */
export function shareBank(circuit: BankCircuit, powerW: readonly number[]): BankShare {
  const { network, modules, taps } = circuit;
  const answer = solveConstantPower(
    network,
    taps.map((tap, index) => ({ ...tap, powerW: powerW[index] ?? 0 })),
  );
  if (answer.kind !== 'solved') return answer;
  // What the inverters take the modules give: nothing else is joined to the bank.
  const totalA = answer.taps.reduce((sum, tap) => sum + tap.currentA, 0);
  const meanA = totalA / Math.max(1, modules.length);
  const isIdle = Math.abs(meanA) < LEAST_MEAN_A;
  let worstDeparture = 0;
  const shares = modules.map((module): ModuleShare => {
    const currentA = answer.sourcesA[module.source] ?? 0;
    const share = isIdle ? 0 : currentA / meanA;
    if (!isIdle) worstDeparture = Math.max(worstDeparture, Math.abs(share - 1));
    return { module, currentA, share, lossW: currentA * currentA * module.ohm };
  });
  return {
    kind: 'solved',
    modules: shares,
    taps: taps.map(({ unitId }, index) => ({
      unitId,
      currentA: answer.taps[index]?.currentA ?? 0,
      voltageV: answer.taps[index]?.voltageV ?? 0,
    })),
    worstDeparture,
    totalA,
    nodesV: answer.nodesV,
    iterations: answer.iterations,
  };
}
