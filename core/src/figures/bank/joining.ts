import type { BankCircuit, CircuitModule } from './bankCircuit.ts';
import { shareBank } from './bankShare.ts';

/** One step of bringing modules onto a bar, with what it would drive and what is expected. */
export interface JoinStep {
  readonly moduleNumber: number;
  readonly voltageV: number;
  /** Against the modules that are joined already; 0 for the first. */
  readonly differenceV: number;
  /** What the module that is closed gives or takes. */
  readonly currentA: number;
  readonly limitA: number;
  /** How many modules are joined already. */
  readonly onto: number;
  readonly say: 'first' | 'close' | 'bring-nearer';
}

/** Difference that may stand when a module is closed, for a bank of this voltage: the planning figure is for 48 V. */
export const holdV = (joiningV: number, nominalV: number): number => (joiningV * nominalV) / 48;

/** Currents of some modules of a bank that are joined while nothing is drawn, A, in their order; positive where one gives. */
function atRestA(circuit: BankCircuit, joined: readonly CircuitModule[]): readonly number[] {
  const sources = joined.flatMap(({ source }) => circuit.network.sources[source] ?? []);
  const share = shareBank(
    {
      ...circuit,
      network: { ...circuit.network, sources },
      modules: joined.map((module, source) => ({ ...module, source })),
    },
    circuit.taps.map(() => 0),
  );
  return share.kind === 'solved' ? share.modules.map(({ currentA }) => currentA) : joined.map(() => NaN);
}

/** Voltage of modules that are joined, as the one that is to come finds it: the mean weighted by their conductance. */
function joinedV(joined: readonly CircuitModule[]): number {
  const siemens = joined.reduce((sum, one) => sum + 1 / one.ohm, 0);
  return joined.reduce((sum, one) => sum + one.emfV / one.ohm, 0) / siemens;
}

function stepOf(
  module: CircuitModule,
  joined: readonly CircuitModule[],
  currentA: number,
  joiningV: number,
): JoinStep {
  const isFirst = joined.length === 0;
  const differenceV = isFirst ? 0 : module.emfV - joinedV(joined);
  const limitA = module.type.chargeA;
  const isNear = Math.abs(differenceV) <= holdV(joiningV, module.type.nominalV) && currentA <= limitA;
  return {
    moduleNumber: module.number,
    voltageV: module.emfV,
    differenceV,
    currentA,
    limitA,
    onto: joined.length,
    say: isFirst ? 'first' : isNear ? 'close' : 'bring-nearer',
  };
}

/**
 * The order in which modules come onto a bar: the one nearest the middle first, then each next nearest, each closed onto all that are
 * joined already and solved on the network at rest. A module that stands further off than the hold, or would drive more than it may
 * be charged with, is brought nearer first.
 */
export function joinSteps(circuit: BankCircuit, joiningV: number): JoinStep[] {
  const { modules } = circuit;
  const sorted = [...modules].sort((a, b) => a.emfV - b.emfV);
  const middle = sorted[Math.floor((sorted.length - 1) / 2)];
  if (middle === undefined) return [];
  const order = [...modules].sort(
    (a, b) => Math.abs(a.emfV - middle.emfV) - Math.abs(b.emfV - middle.emfV) || a.number - b.number,
  );
  return order.map((module, at) => {
    const joined = order.slice(0, at);
    const currentA = at === 0 ? 0 : Math.abs(atRestA(circuit, [...joined, module]).at(-1) ?? NaN);
    return stepOf(module, joined, currentA, joiningV);
  });
}

/**
 * The step that comes nearest to what a module may take, whoever joins them: in the order above, or any one module closed last onto
 * all the others. Undefined for a module alone.
 */
export function worstJoin(circuit: BankCircuit, joiningV: number): JoinStep | undefined {
  const { modules } = circuit;
  if (modules.length < 2) return undefined;
  const currents = atRestA(circuit, modules);
  const last = modules.map((module, at) =>
    stepOf(
      module,
      modules.filter((other) => other !== module),
      Math.abs(currents[at] ?? NaN),
      joiningV,
    ),
  );
  return [...joinSteps(circuit, joiningV).slice(1), ...last].reduce((worst, step) =>
    step.currentA / step.limitA > worst.currentA / worst.limitA ? step : worst,
  );
}
