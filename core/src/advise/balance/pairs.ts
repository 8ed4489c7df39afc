import type { Complex } from '../../network/complex.ts';
import { add, ZERO } from '../../network/complex.ts';
import type { BalanceProblem, BalanceResult, Progress } from './problem.ts';
import { balanceSearch } from './search.ts';

/** What a load between two lines draws on each line of the supply, for one pair of lines. */
export interface PairOption {
  readonly lines: readonly [number, number];
  readonly power: readonly Complex[];
  readonly hourly: readonly (readonly Complex[])[];
  readonly surge: readonly Complex[];
}

/** A circuit between two of three lines: which pair it is on, and what each pair would mean. */
export interface MovablePair {
  readonly id: string;
  readonly at: number;
  readonly options: readonly PairOption[];
}

export interface PairedStep {
  readonly moves: number;
  readonly lines: readonly number[];
  /** Index of the option of each pair. */
  readonly pairs: readonly number[];
  readonly worstVa: number;
  readonly worstHourVa: number;
  readonly worstSurgeVa: number;
}

export interface PairedResult extends Omit<BalanceResult, 'steps'> {
  readonly steps: readonly PairedStep[];
}

/**
 * So many choices of pairs are each searched in full, fewer where each search is long; beyond, one pair is changed at a time from the
 * best so far.
 */
const MOST_CHOICES = { short: 81, long: 9 };
/** Up to this many single-line loads a search takes no time to speak of. */
const SHORT_SEARCH_LOADS = 12;

const sum = (a: readonly Complex[], b: readonly Complex[]): Complex[] =>
  a.map((one, line) => add(one, b[line] ?? ZERO));

/** The problem that is left once the pairs are chosen. */
function withPairs(
  problem: BalanceProblem,
  pairs: readonly MovablePair[],
  choice: readonly number[],
): BalanceProblem {
  const chosen = pairs.flatMap((pair, index) => pair.options[choice[index] ?? pair.at] ?? []);
  return {
    ...problem,
    base: chosen.reduce<readonly Complex[]>((base, one) => sum(base, one.power), problem.base),
    baseSurge: chosen.reduce<readonly Complex[]>((base, one) => sum(base, one.surge), problem.baseSurge),
    baseHourly: problem.baseHourly.map((base, hour) =>
      chosen.reduce<readonly Complex[]>((at, one) => sum(at, one.hourly[hour] ?? []), base),
    ),
  };
}

function allChoices(pairs: readonly MovablePair[]): number[][] {
  return pairs.reduce<number[][]>(
    (choices, pair) => choices.flatMap((one) => pair.options.map((_, option) => [...one, option])),
    [[]],
  );
}

const isBetter = (a: PairedStep, b: PairedStep): boolean =>
  a.worstVa < b.worstVa * (1 - 1e-9) || (a.worstVa <= b.worstVa * (1 + 1e-9) && a.moves < b.moves);

/** Each step that is better than all with fewer moves. */
function front(steps: readonly PairedStep[]): PairedStep[] {
  const kept: PairedStep[] = [];
  for (const step of [...steps].sort((a, b) => a.moves - b.moves || a.worstVa - b.worstVa)) {
    const last = kept.at(-1);
    if (last === undefined || step.worstVa < last.worstVa - 0.5) kept.push(step);
  }
  return kept;
}

/**
 * The best assignment of single-line loads and of pairs together for every number of moves. With few pairs every choice of them is
 * searched in full and the result is as exact as those searches; with many, pairs are changed one at a time while that helps, and the
 * result is not called exact.
 */
export function balanceWithPairs(
  problem: BalanceProblem,
  pairs: readonly MovablePair[],
  onProgress: Progress = () => undefined,
): PairedResult {
  const home = pairs.map(({ at }) => at);
  const search = (choice: readonly number[]): PairedResult => {
    const result = balanceSearch(withPairs(problem, pairs, choice));
    const moved = choice.filter((option, index) => option !== home[index]).length;
    return {
      ...result,
      steps: result.steps.map((step) => ({ ...step, moves: step.moves + moved, pairs: choice })),
    };
  };
  if (pairs.length === 0) {
    const result = balanceSearch(problem, onProgress);
    return { ...result, steps: result.steps.map((step) => ({ ...step, pairs: [] })) };
  }
  const most = problem.loads.length <= SHORT_SEARCH_LOADS ? MOST_CHOICES.short : MOST_CHOICES.long;
  const isFull = pairs.reduce((count, { options }) => count * options.length, 1) <= most;
  const results: PairedResult[] = [search(home)];
  if (isFull) {
    const others = allChoices(pairs).filter((choice) =>
      choice.some((option, index) => option !== home[index]),
    );
    others.forEach((choice, index) => {
      onProgress((index + 1) / (others.length + 1));
      results.push(search(choice));
    });
  } else descend(pairs, home, search, results, onProgress);
  onProgress(1);
  return {
    steps: front(results.flatMap(({ steps }) => steps)),
    boundVa: Math.min(...results.map(({ boundVa }) => boundVa)),
    exact: isFull && results.every(({ exact }) => exact),
  };
}

/** Changes one pair at a time, the one that helps most, until none does. */
function descend(
  pairs: readonly MovablePair[],
  home: readonly number[],
  search: (choice: readonly number[]) => PairedResult,
  results: PairedResult[],
  onProgress: Progress,
): void {
  let at = [...home];
  let best = results[0]?.steps.at(-1);
  for (let round = 0; round < pairs.length && best !== undefined; round += 1) {
    let next: { choice: number[]; step: PairedStep } | undefined;
    for (const [index, pair] of pairs.entries()) {
      onProgress((round + index / pairs.length) / pairs.length);
      for (let option = 0; option < pair.options.length; option += 1) {
        if (option === at[index]) continue;
        const choice = at.with(index, option);
        const result = search(choice);
        results.push(result);
        const step = result.steps.at(-1);
        if (step !== undefined && isBetter(step, next?.step ?? best)) next = { choice, step };
      }
    }
    if (next === undefined) return;
    at = next.choice;
    best = next.step;
  }
}
