import { islandBoard } from '../figures/loads/boards.ts';
import { capabilityWithout } from '../figures/capability/capability.ts';
import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { circuitPower, HOURS_OF_DAY } from '../figures/loads/circuitPower.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { factorFinder } from '../figures/loads/loads.ts';
import type { Supply } from '../installation/supply.ts';
import type { Circuit, Design } from '../design/schema.ts';
import { add, type Complex, magnitude, ZERO } from '../network/complex.ts';
import type { Line } from '../values/quantities.ts';
import { counted, formatQuantity } from '../words/quantity.ts';
import {
  balanceWithPairs,
  type MovablePair,
  type PairedResult,
  type PairedStep,
  type PairOption,
} from './balance/pairs.ts';
import type { BalanceProblem, MovableLoad, Progress } from './balance/problem.ts';
import { figuresOf } from './figures.ts';
import { circuitPart, makeProposal } from './makeProposal.ts';
import type { Advice, Figures, Proposal } from './proposal.ts';

interface Posed {
  readonly problem: BalanceProblem;
  readonly pairs: readonly MovablePair[];
  /** Circuits of the problem's loads, then of its pairs, in their order. */
  readonly circuits: readonly Circuit[];
  readonly pairCircuits: readonly Circuit[];
  readonly unknown: readonly Circuit[];
}

/** Lines that are balanced: those of a stack, or of the service. */
interface Target {
  readonly id: string;
  readonly name: string;
  readonly circuits: readonly Circuit[];
  /** The circuits of them that may move at all. */
  readonly mayMove: (circuit: Circuit) => boolean;
  readonly weights: readonly number[];
}

/** A VA on a line that can carry less weighs more, so that the fullest line is the one that is lowered. */
function weightsOf(compiled: CompiledStack, lines: number): number[] {
  const found = capabilityWithout(compiled);
  const limits = found.known ? found.value.perLineVa : [];
  if (limits.length !== lines || limits.some((limit) => !(limit > 0)))
    return new Array<number>(lines).fill(1);
  const mean = limits.reduce((sum, limit) => sum + limit, 0) / lines;
  return limits.map((limit) => mean / limit);
}

const sumLines = (sum: readonly Complex[], more: readonly Complex[]): Complex[] =>
  sum.map((one, line) => add(one, more[line] ?? ZERO));

/** The pairs of three lines. */
const PAIRS: readonly (readonly [number, number])[] = [
  [0, 1],
  [1, 2],
  [0, 2],
];

/** What a circuit between two lines would draw on each of the pairs. */
function pairOf(
  circuit: Circuit,
  supply: Supply,
  factorsOf: ReturnType<typeof factorFinder>,
): MovablePair | undefined {
  const on = circuit.lines?.map((line) => supply.lines.indexOf(line)).sort((a, b) => a - b);
  const at = PAIRS.findIndex(([first, second]) => on?.[0] === first && on[1] === second);
  if (supply.lines.length !== 3 || on?.length !== 2 || at < 0) return undefined;
  const options = PAIRS.map((lines): PairOption => {
    const names = lines.flatMap((line) => supply.lines[line] ?? []);
    const { expected, hourly, surge } = circuitPower({ ...circuit, lines: names }, supply, factorsOf);
    return { lines, power: expected, hourly, surge };
  });
  return { id: circuit.id, at, options };
}

/** What of the circuits may move and what stays. */
function pose({ circuits, mayMove, weights }: Target, supply: Supply): Posed {
  const factorsOf = factorFinder(supply);
  const none = (): Complex[] => supply.lines.map(() => ZERO);
  let base: Complex[] = none();
  let baseSurge: Complex[] = none();
  let baseHourly: Complex[][] = Array.from({ length: HOURS_OF_DAY }, none);
  const loads: MovableLoad[] = [];
  const pairs: MovablePair[] = [];
  const movable: Circuit[] = [];
  const pairCircuits: Circuit[] = [];
  const unknown: Circuit[] = [];
  for (const circuit of circuits) {
    const power = circuitPower(circuit, supply, factorsOf);
    const [only] = circuit.lines ?? [];
    const line = only === undefined ? -1 : supply.lines.indexOf(only);
    if (power.missing.length > 0) unknown.push(circuit);
    const isFree = mayMove(circuit) && circuit.lineFixed !== 'yes' && power.missing.length === 0 && line >= 0;
    if (isFree && circuit.lines?.length === 1) {
      movable.push(circuit);
      loads.push({
        id: circuit.id,
        line,
        power: power.expected[line] ?? ZERO,
        hourly: power.hourly.map((lines) => lines[line] ?? ZERO),
        surge: power.surge[line] ?? ZERO,
      });
      continue;
    }
    const pair = isFree ? pairOf(circuit, supply, factorsOf) : undefined;
    if (pair !== undefined) {
      pairs.push(pair);
      pairCircuits.push(circuit);
      continue;
    }
    base = sumLines(base, power.expected);
    baseSurge = sumLines(baseSurge, power.surge);
    baseHourly = baseHourly.map((lines, hour) => sumLines(lines, power.hourly[hour] ?? []));
  }
  return {
    problem: { base, baseHourly, baseSurge, weights, loads },
    pairs,
    circuits: movable,
    pairCircuits,
    unknown,
  };
}

const linesText = (lines: readonly Line[] | undefined): string => lines?.join('+') ?? '';

/** The lines that a step puts each movable circuit on. */
function placesOf(posed: Posed, step: PairedStep, supply: Supply): ReadonlyMap<string, readonly Line[]> {
  const named = (lines: readonly number[]): readonly Line[] =>
    lines.flatMap((line) => supply.lines[line] ?? []);
  return new Map([
    ...posed.circuits.map(({ id }, index) => [id, named([step.lines[index] ?? 0])] as const),
    ...posed.pairs.map(
      ({ id, options, at }, index) => [id, named(options[step.pairs[index] ?? at]?.lines ?? [])] as const,
    ),
  ]);
}

/** VA of the most loaded line of a building, each line as its circuits stand. */
function worstLineVa(circuits: readonly Circuit[], supply: Supply): number {
  const factorsOf = factorFinder(supply);
  const sums = circuits.reduce<Complex[]>(
    (sum, circuit) => sumLines(sum, circuitPower(circuit, supply, factorsOf).expected),
    supply.lines.map(() => ZERO),
  );
  return Math.max(...sums.map(magnitude));
}

interface Given {
  readonly design: Design;
  readonly supply: Supply;
  readonly before: Figures;
  readonly catalogue: readonly EquipmentType[];
}

function proposalOf(
  { design, supply, before, catalogue }: Given,
  target: Target,
  posed: Posed,
  step: PairedStep,
  result: PairedResult,
): Proposal {
  const [now] = result.steps;
  const places = placesOf(posed, step, supply);
  const isMoved = ({ id, lines }: Circuit): boolean =>
    places.has(id) && linesText(places.get(id)) !== linesText(lines?.toSorted());
  const moved = (circuit: Circuit): Circuit =>
    isMoved(circuit) ? { ...circuit, lines: [...(places.get(circuit.id) ?? [])] } : circuit;
  const parts = [...posed.circuits, ...posed.pairCircuits]
    .filter(isMoved)
    .map((circuit) =>
      circuitPart(
        design,
        circuit,
        `${circuit.name}: ${linesText(circuit.lines)} to ${linesText(places.get(circuit.id))}`,
        moved,
      ),
    );
  const after: Design = { ...design, circuits: design.circuits.map(moved) };
  const gap = result.boundVa > 0 ? step.worstVa / result.boundVa - 1 : 0;
  const service = [design, after].map(({ circuits }) => formatQuantity(worstLineVa(circuits, supply), 'VA'));
  const notes = [
    `Most loaded line of ${target.name} at the expected peak: ${formatQuantity(now?.worstVa ?? 0, 'VA')} to ${formatQuantity(step.worstVa, 'VA')}; in the worst hour ${formatQuantity(step.worstHourVa, 'VA')}; everything starting together ${formatQuantity(step.worstSurgeVa, 'VA')}.`,
    `Most loaded line of the service on grid: ${service.join(' to ')}.`,
    result.exact
      ? `No other assignment with ${counted(step.moves, 'move')} does better: every one has been accounted for.`
      : `No assignment can go below ${formatQuantity(result.boundVa, 'VA')}; this is ${formatQuantity(Math.max(0, gap), 'fraction')} above it.`,
    ...(posed.unknown.length > 0
      ? [
          `${counted(posed.unknown.length, 'circuit')} not known in full, counted as far as known and left where they are: ${posed.unknown
            .slice(0, 3)
            .map((one) => one.name)
            .join(', ')}.`,
        ]
      : []),
  ];
  return makeProposal(
    'balance',
    `balance-${target.id}-${step.moves}`,
    `${target.name}: ${counted(step.moves, 'move')}`,
    { design, after, parts, notes, before },
    catalogue,
  );
}

/** The lines of each stack with what hangs on them in island, then the service with what hangs on no stack. */
function targetsOf(installation: Installation, supply: Supply): Target[] {
  const onStacks = new Set<string>();
  const stacks = installation.stacks.flatMap((compiled): Target[] => {
    const board = islandBoard(compiled);
    if (!board.known) return [];
    board.value.circuits.forEach(({ id }) => onStacks.add(id));
    return [
      {
        id: compiled.stack.id,
        name: compiled.stack.name,
        circuits: board.value.circuits,
        mayMove: () => true,
        weights: weightsOf(compiled, supply.lines.length),
      },
    ];
  });
  // What a stack carries is balanced for the stack: on the service only the rest moves, so that neither undoes the other.
  const service: Target = {
    id: 'service',
    name: 'Service',
    circuits: installation.circuits,
    mayMove: ({ id }) => !onStacks.has(id),
    weights: supply.lines.map(() => 1),
  };
  const hasRest = installation.site.grid !== 'none' && installation.circuits.some(service.mayMove);
  return hasRest ? [...stacks, service] : stacks;
}

/**
 * Best line assignments for 1, 2, … moves: of what each stack carries in island, and on the service of what no stack carries. Circuits
 * between two of three lines take part; fixed circuits, and those on all lines, stay.
 */
export function adviseBalance(
  design: Design,
  catalogue: readonly EquipmentType[],
  onProgress: Progress = () => undefined,
): Advice {
  const analysis = analyse(design, catalogue);
  const { installation } = analysis;
  const { supply } = installation;
  const notes: string[] = [];
  const proposals: Proposal[] = [];
  const only = (note: string): Advice => ({ kind: 'balance', proposals, notes: [note] });
  if (!supply.known) return only('The supply is not known, so there are no lines to balance.');
  if (supply.value.lines.length < 2) return only('A single-phase supply has one line: nothing to balance.');
  const given: Given = { design, supply: supply.value, before: figuresOf(analysis), catalogue };
  for (const target of targetsOf(installation, supply.value)) {
    const posed = pose(target, supply.value);
    const result = balanceWithPairs(posed.problem, posed.pairs, onProgress);
    const better = result.steps.filter((step) => step.moves > 0);
    if (better.length === 0) {
      const why =
        posed.circuits.length + posed.pairs.length === 0
          ? 'no circuit may move'
          : 'no other assignment loads the lines more evenly';
      notes.push(`${target.name}: ${why}.`);
    }
    for (const step of better) proposals.push(proposalOf(given, target, posed, step, result));
  }
  if (installation.stacks.length === 0) notes.push('There is no stack yet whose lines could be balanced.');
  return { kind: 'balance', proposals, notes };
}
