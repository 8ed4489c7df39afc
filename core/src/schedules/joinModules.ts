import type { BankCircuit, CircuitModule } from '../figures/bank/bankCircuit.ts';

/** One step of bringing modules onto a bar, with what it would drive and what is expected. */
export interface JoinStep {
  readonly moduleNumber: number;
  readonly voltageV: number;
  /** Against the modules that are joined already; 0 for the first. */
  readonly differenceV: number;
  readonly currentA: number;
  readonly limitA: number;
  readonly say: 'first' | 'close' | 'bring-nearer';
}

/** Difference that may stand when a module is closed, for a bank of this voltage: the planning figure is for 48 V. */
export const holdV = (joiningV: number, nominalV: number): number => (joiningV * nominalV) / 48;

/**
 * The order in which modules come onto a bar: the one nearest the middle first, then each next nearest. A module that stands
 * further off than the hold, or would drive more than a module may be charged with, is brought nearer first.
 */
export function joinSteps({ modules }: BankCircuit, joiningV: number): JoinStep[] {
  const sorted = [...modules].sort((a, b) => a.emfV - b.emfV);
  const middle = sorted[Math.floor((sorted.length - 1) / 2)];
  if (middle === undefined) return [];
  const order = [...modules].sort(
    (a, b) => Math.abs(a.emfV - middle.emfV) - Math.abs(b.emfV - middle.emfV) || a.number - b.number,
  );
  const joined: CircuitModule[] = [];
  return order.map((module): JoinStep => {
    // What is joined stands in parallel: its voltage is the mean weighted by conductance.
    const siemens = joined.reduce((sum, one) => sum + 1 / one.ohm, 0);
    const bankV =
      siemens === 0 ? module.emfV : joined.reduce((sum, one) => sum + one.emfV / one.ohm, 0) / siemens;
    const differenceV = module.emfV - bankV;
    const ohm = module.ohm + (siemens === 0 ? 0 : 1 / siemens);
    const currentA = siemens === 0 ? 0 : Math.abs(differenceV) / ohm;
    const isFirst = joined.length === 0;
    joined.push(module);
    const isNear =
      Math.abs(differenceV) <= holdV(joiningV, module.type.nominalV) && currentA <= module.type.chargeA;
    return {
      moduleNumber: module.number,
      voltageV: module.emfV,
      differenceV,
      currentA,
      limitA: module.type.chargeA,
      say: isFirst ? 'first' : isNear ? 'close' : 'bring-nearer',
    };
  });
}
