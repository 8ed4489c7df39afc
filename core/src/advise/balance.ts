import { islandBoard } from '../figures/loads/boards.ts';
import { capabilityWithout } from '../figures/capability/capability.ts';
import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { circuitPower, HOURS_OF_DAY } from '../figures/loads/circuitPower.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { factorFinder } from '../figures/loads/loads.ts';
import type { Supply } from '../installation/supply.ts';
import type { Circuit, Design } from '../design/schema.ts';
import { add, type Complex, ZERO } from '../network/complex.ts';
import { counted, formatQuantity } from '../words/quantity.ts';
import type { BalanceProblem, BalanceResult, BalanceStep, MovableLoad, Progress } from './balance/problem.ts';
import { balanceSearch } from './balance/search.ts';
import { figuresOf } from './figures.ts';
import { circuitPart, makeProposal } from './makeProposal.ts';
import type { Advice, Figures, Proposal } from './proposal.ts';

interface Posed {
  readonly problem: BalanceProblem;
  readonly circuits: readonly Circuit[];
  readonly unknown: readonly Circuit[];
  readonly fixed: number;
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

/** What of a stack's board may move and what stays. */
function pose(compiled: CompiledStack, circuits: readonly Circuit[], supply: Supply): Posed {
  const factorsOf = factorFinder(supply);
  const count = supply.lines.length;
  const none = (): Complex[] => supply.lines.map(() => ZERO);
  let base: Complex[] = none();
  let baseSurge: Complex[] = none();
  let baseHourly: Complex[][] = Array.from({ length: HOURS_OF_DAY }, none);
  const loads: MovableLoad[] = [];
  const movable: Circuit[] = [];
  const unknown: Circuit[] = [];
  let fixed = 0;
  for (const circuit of circuits) {
    const power = circuitPower(circuit, supply, factorsOf);
    const [only] = circuit.lines ?? [];
    const line = only === undefined ? -1 : supply.lines.indexOf(only);
    if (power.missing.length > 0) unknown.push(circuit);
    if (
      circuit.lines?.length === 1 &&
      circuit.lineFixed !== 'yes' &&
      power.missing.length === 0 &&
      line >= 0
    ) {
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
    fixed += 1;
    base = sumLines(base, power.expected);
    baseSurge = sumLines(baseSurge, power.surge);
    baseHourly = baseHourly.map((lines, hour) => sumLines(lines, power.hourly[hour] ?? []));
  }
  return {
    problem: { base, baseHourly, baseSurge, weights: weightsOf(compiled, count), loads },
    circuits: movable,
    unknown,
    fixed,
  };
}

function proposalOf(
  design: Design,
  posed: Posed,
  step: BalanceStep,
  result: BalanceResult,
  supply: Supply,
  stackName: string,
  before: Figures,
  catalogue: readonly EquipmentType[],
): Proposal {
  const [now] = result.steps;
  const parts = posed.circuits.flatMap((circuit, index) => {
    const line = supply.lines[step.lines[index] ?? 0];
    if (line === undefined || circuit.lines?.[0] === line) return [];
    return [
      circuitPart(design, circuit, `${circuit.name}: ${circuit.lines?.[0] ?? ''} to ${line}`, (one) => ({
        ...one,
        lines: [line],
      })),
    ];
  });
  const to = new Map(
    posed.circuits.map((circuit, index) => [circuit.id, supply.lines[step.lines[index] ?? 0]] as const),
  );
  const after: Design = {
    ...design,
    circuits: design.circuits.map((circuit) => {
      const line = to.get(circuit.id);
      return line === undefined || circuit.lines?.[0] === line ? circuit : { ...circuit, lines: [line] };
    }),
  };
  const gap = result.boundVa > 0 ? step.worstVa / result.boundVa - 1 : 0;
  const notes = [
    `Most loaded line of ${stackName} at the expected peak: ${formatQuantity(now?.worstVa ?? 0, 'VA')} to ${formatQuantity(step.worstVa, 'VA')}; in the worst hour ${formatQuantity(step.worstHourVa, 'VA')}; everything starting together ${formatQuantity(step.worstSurgeVa, 'VA')}.`,
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
    `balance-${step.moves}`,
    `${stackName}: ${counted(step.moves, 'move')}`,
    { design, after, parts, notes, before },
    catalogue,
  );
}

/** Best line assignments of each stack's board for 1, 2, … moves. Circuits on several lines and fixed circuits stay. */
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
  if (!supply.known)
    return {
      kind: 'balance',
      proposals,
      notes: ['The supply is not known, so there are no lines to balance.'],
    };
  if (supply.value.lines.length < 2)
    return { kind: 'balance', proposals, notes: ['A single-phase supply has one line: nothing to balance.'] };
  const before = figuresOf(analysis);
  for (const compiled of installation.stacks) {
    const board = islandBoard(compiled);
    if (!board.known) continue;
    const posed = pose(compiled, board.value.circuits, supply.value);
    const result = balanceSearch(posed.problem, onProgress);
    const better = result.steps.filter((step) => step.moves > 0);
    if (better.length === 0) {
      const why =
        posed.circuits.length === 0
          ? 'no circuit may move'
          : 'no other assignment loads the lines more evenly';
      notes.push(`${compiled.stack.name}: ${why}.`);
    }
    for (const step of better)
      proposals.push(
        proposalOf(design, posed, step, result, supply.value, compiled.stack.name, before, catalogue),
      );
  }
  if (installation.stacks.length === 0) notes.push('There is no stack yet whose lines could be balanced.');
  return { kind: 'balance', proposals, notes };
}
