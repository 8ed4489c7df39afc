import type { Circuit } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Line } from '../values/quantities.ts';
import { formatQuantity } from '../words/quantity.ts';

/** Power is added up in steps of so many watts, always rounded up: what is proposed is never more than the test load. */
const STEP_W = 10;
/** Loads above this power factor stand for the resistive test load: 0.95 is 5 % more current for the same power. */
const LEAST_FACTOR = 0.95;
/** Less than this share of the test load is not worth switching circuits for. */
const WORTH_IT = 0.5;
const MOST_CIRCUITS = 200;

interface Usable {
  readonly name: string;
  readonly watts: number;
}

/** What a circuit draws with all of it on, where every item of it is known, near to resistive and without a start. */
function usable({ name, items }: Circuit): Usable[] {
  let watts = 0;
  for (const { quantity, runningW, powerFactor, startClass } of items) {
    if (quantity === undefined || runningW === undefined || powerFactor === undefined) return [];
    if (powerFactor < LEAST_FACTOR || startClass !== 'steady') return [];
    watts += quantity * runningW;
  }
  return watts > 0 ? [{ name, watts }] : [];
}

/** The circuits that come nearest to a power from below, by sums in steps; of equal sums the one with fewest circuits. */
export function nearestBelow(circuits: readonly Usable[], mostW: number): readonly Usable[] {
  const most = Math.floor(mostW / STEP_W);
  const best: (readonly Usable[] | undefined)[] = Array.from({ length: most + 1 }, (_, at) =>
    at === 0 ? [] : undefined,
  );
  for (const one of circuits.slice(0, MOST_CIRCUITS)) {
    const steps = Math.ceil(one.watts / STEP_W);
    for (let sum = most; sum >= steps; sum -= 1) {
      const before = best[sum - steps];
      const now = best[sum];
      if (before !== undefined && (now === undefined || before.length + 1 < now.length))
        best[sum] = [...before, one];
    }
  }
  return best.findLast((found) => found !== undefined) ?? [];
}

/**
 * The test load from circuits of the building, where they make up the better part of it: which to switch on, and what the load bank
 * adds. One sentence for each line.
 */
export function realLoad(
  { circuits }: Pick<Installation, 'circuits'>,
  { partitions }: Pick<CompiledStack, 'partitions'>,
  lines: readonly Line[],
  wattsPerLine: number,
): string[] {
  const backed = new Set(partitions.filter(({ kind }) => kind === 'backup').map(({ id }) => id));
  return lines.flatMap((line) => {
    const own = circuits.filter(
      (circuit) =>
        circuit.lines?.length === 1 && circuit.lines[0] === line && backed.has(circuit.partitionId ?? ''),
    );
    const chosen = nearestBelow(own.flatMap(usable), wattsPerLine);
    const sumW = chosen.reduce((sum, { watts }) => sum + watts, 0);
    if (sumW < WORTH_IT * wattsPerLine) return [];
    const names = chosen.map(({ name }) => name);
    const all =
      names.length === 1 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
    const restW = wattsPerLine - sumW;
    const rest = restW >= STEP_W ? `; the load bank adds ${formatQuantity(restW, 'W')}` : '';
    return [
      `From the building itself on ${line}: ${all}, all of it on, ${names.length === 1 ? 'comes' : 'come'} to ${formatQuantity(sumW, 'W')}${rest}.`,
    ];
  });
}
