import { beamSearch } from './beam.ts';
import { lowerBound } from './bound.ts';
import { searchMoves } from './depth.ts';
import { joinHalves } from './halves.ts';
import {
  type BalanceProblem,
  type BalanceResult,
  type BalanceStep,
  EXACT_LOADS,
  isBetter,
  measureStep,
  type Progress,
  RESOLUTION_VA,
} from './problem.ts';
import { inProblemOrder, type Table, tableOf } from './table.ts';

/** Nodes for each number of moves, and moves up to which all sets are gone through before the halves are joined. */
const NODES_PER_LEVEL = 1_500_000;
const MOST_LEVELS = 6;

/** The best known for each exact number of moves. */
class Front {
  private readonly best: (BalanceStep | undefined)[] = [];
  /** The lowest worst line with at most so many moves. */
  readonly limits: Float64Array;
  private readonly problem: BalanceProblem;
  private readonly table: Table;

  constructor(problem: BalanceProblem, table: Table) {
    this.problem = problem;
    this.table = table;
    this.limits = new Float64Array(table.count + 1).fill(Infinity);
  }

  /** Takes an assignment in the order of the table, if it is the best for its number of moves. */
  readonly take = (sorted: ArrayLike<number>, worst: number): void => {
    let moves = 0;
    for (let load = 0; load < this.table.count; load += 1)
      if (sorted[load] !== this.table.home[load]) moves += 1;
    const known = this.best[moves];
    if (known !== undefined && worst > known.worstVa * (1 + 1e-9)) return;
    const step = measureStep(this.problem, inProblemOrder(this.table, sorted));
    if (known !== undefined && !isBetter(step, known)) return;
    this.best[moves] = step;
    for (let count = moves; count <= this.table.count; count += 1)
      if ((this.limits[count] ?? Infinity) > step.worstVa) this.limits[count] = step.worstVa;
  };

  upTo(moves: number): number {
    return this.limits[moves] ?? Infinity;
  }

  /** Each step that is better than all with fewer moves. */
  steps(): BalanceStep[] {
    const steps: BalanceStep[] = [];
    for (const step of this.best) {
      const last = steps.at(-1);
      if (step !== undefined && (last === undefined || step.worstVa < last.worstVa - RESOLUTION_VA))
        steps.push(step);
      else if (step !== undefined && last !== undefined && steps.length === 1 && isBetter(step, last))
        steps.push(step);
    }
    return steps;
  }
}

/**
 * The best assignment of loads to lines for every number of moves. Up to `EXACT_LOADS` loads the steps are proven: small
 * numbers of moves by going through all sets of moves that can still help, the rest by joining halves. Above that the
 * result comes from a beam search and is shown with the bound that nothing can go below.
 */
export function balanceSearch(
  problem: BalanceProblem,
  onProgress: Progress = () => undefined,
): BalanceResult {
  const table = tableOf(problem);
  const boundVa = lowerBound(table);
  const front = new Front(problem, table);
  beamSearch(table, boundVa).forEach(({ lines, worst }) => front.take(lines, worst));
  const settled = (): boolean => front.upTo(table.count) <= boundVa + RESOLUTION_VA;
  let proven = 0;
  if (table.count <= EXACT_LOADS) {
    for (let moves = 1; moves <= Math.min(MOST_LEVELS, table.count); moves += 1) {
      onProgress((moves / MOST_LEVELS) * 0.5);
      const seen = searchMoves(table, moves, front.upTo(moves), front.take, { nodes: NODES_PER_LEVEL });
      if (!seen) break;
      proven = moves;
      if (front.upTo(moves) <= boundVa + RESOLUTION_VA) proven = table.count;
      if (proven >= table.count) break;
    }
    if (proven < table.count) {
      const joined = joinHalves(table, front.upTo(proven), front.limits, front.take, (share) =>
        onProgress(0.5 + share / 2),
      );
      if (joined) proven = table.count;
    }
  }
  onProgress(1);
  return {
    steps: front.steps(),
    boundVa,
    exact: table.count === 0 || proven >= table.count || (settled() && proven > 0),
  };
}
