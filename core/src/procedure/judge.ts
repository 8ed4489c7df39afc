import type { Band, ProcedureStep, ReadingSpec } from './schema.ts';

/**
 * The verdict on a reading or a step. "Within" means within the limits entered, no more.
 * `recorded`: kept, with no limit to hold it against. `not-judged`: the design lacks what the limit needs. `skipped`: somebody has said
 * by name why the step was not done.
 */
export type Verdict = 'abort' | 'outside' | 'not-judged' | 'within' | 'recorded' | 'pending' | 'skipped';

const inside = (value: number, limits: Band): boolean =>
  (limits.low === undefined || value >= limits.low) && (limits.high === undefined || value <= limits.high);

/** Judges one reading. A confirmation is 1 for yes and 0 for no. */
export function judgeReading(spec: ReadingSpec, value: number | undefined): Verdict {
  if (value === undefined) return 'pending';
  if (spec.kind === 'confirmation') return value === 1 ? 'within' : 'outside';
  if (spec.abort !== undefined && !inside(value, spec.abort)) return 'abort';
  if (spec.missing.length > 0) return 'not-judged';
  if (spec.expected === undefined) return 'recorded';
  return inside(value, spec.expected) ? 'within' : 'outside';
}

const RANK: Record<Verdict, number> = {
  abort: 0,
  outside: 1,
  pending: 2,
  skipped: 3,
  'not-judged': 4,
  within: 5,
  recorded: 6,
};

/** The worst verdict of the readings; pending while one is still to be taken, unless another already fails. */
export function judgeStep(step: ProcedureStep, values: ReadonlyMap<string, number>): Verdict {
  let worst: Verdict = 'recorded';
  for (const spec of step.readings) {
    const verdict = judgeReading(spec, values.get(spec.id));
    if (RANK[verdict] < RANK[worst]) worst = verdict;
  }
  return worst;
}
