import type { Procedure, ProcedureStep, ReadingSpec } from './schema.ts';
import { judgeReading, judgeStep, type Verdict } from './judge.ts';

/** A reading of a run, as far as a passage looks at it. Later ones stand for earlier ones. */
export interface TakenReading {
  readonly stepId: string;
  readonly readingId: string;
  readonly value: number;
  readonly attempt: number;
  readonly note: string;
}

/** A step that keeps those after it shut, and why. */
export interface Blocked {
  readonly step: number;
  readonly why: 'abort' | 'gate';
}

/** Readings of a step in its latest attempt, the latest correction of each. */
export function latestOf<R extends TakenReading>(
  { id }: ProcedureStep,
  readings: readonly R[],
): { readonly attempt: number; readonly values: ReadonlyMap<string, R> } {
  const own = readings.filter((one) => one.stepId === id);
  const attempt = Math.max(1, ...own.map((one) => one.attempt));
  const values = new Map<string, R>();
  for (const one of own) if (one.attempt === attempt) values.set(one.readingId, one);
  return { attempt, values };
}

/** Stands for "this step is not done": 1 with its reason, 0 once it is taken up again. Not a reading that an instrument could give. */
export const SKIPPED = 'skipped';

/** Who has skipped a step, and why; undefined where nobody has, or it was taken up again. A gate is never skipped. */
export function skipOf<R extends TakenReading>(
  { id, section }: ProcedureStep,
  readings: readonly R[],
): R | undefined {
  const last = readings.findLast((one) => one.stepId === id && one.readingId === SKIPPED);
  return section !== 'gates' && last?.value === 1 && last.note.trim() !== '' ? last : undefined;
}

export function verdictOfStep(step: ProcedureStep, readings: readonly TakenReading[]): Verdict {
  const { values } = latestOf(step, readings);
  const verdict = judgeStep(step, new Map([...values].map(([key, one]) => [key, one.value])));
  // What was read and failed stays so: a reason not to go on with a step does not make it pass.
  return verdict === 'pending' && skipOf(step, readings) !== undefined ? 'skipped' : verdict;
}

/** The last word on each reading of a step: a retest stands for what it has read again, and for nothing else yet. */
function lastWords<R extends TakenReading>({ id }: ProcedureStep, readings: readonly R[]): Map<string, R> {
  const last = new Map<string, R>();
  for (const one of readings)
    if (one.stepId === id && one.attempt >= (last.get(one.readingId)?.attempt ?? 1))
      last.set(one.readingId, one);
  return last;
}

export interface FailedReading<R extends TakenReading> {
  readonly spec: ReadingSpec;
  readonly taken: R;
  readonly verdict: 'abort' | 'outside';
}

/** The readings of a step that fail at their last word, in its order. */
export function failedReadings<R extends TakenReading>(
  step: ProcedureStep,
  readings: readonly R[],
): FailedReading<R>[] {
  const last = lastWords(step, readings);
  return step.readings.flatMap((spec) => {
    const taken = last.get(spec.id);
    const verdict = judgeReading(spec, taken?.value);
    const fails = verdict === 'abort' || verdict === 'outside';
    return fails && taken !== undefined ? [{ spec, taken, verdict }] : [];
  });
}

/** Whether somebody has given a reason to go on: one reason never speaks for another reading. */
export const hasReason = ({ taken }: FailedReading<TakenReading>): boolean => taken.note.trim() !== '';

const unexplained = (step: ProcedureStep, readings: readonly TakenReading[]): FailedReading<TakenReading>[] =>
  failedReadings(step, readings).filter((one) => !hasReason(one));

const isPastAbort = (step: ProcedureStep, readings: readonly TakenReading[]): boolean =>
  unexplained(step, readings).some(({ verdict }) => verdict === 'abort');

/** A gate is shut while a reading of it is not taken or fails without a reason. A figure that the design lacks does not keep it shut. */
function isShut(step: ProcedureStep, readings: readonly TakenReading[]): boolean {
  const last = lastWords(step, readings);
  return unexplained(step, readings).length > 0 || step.readings.some(({ id }) => !last.has(id));
}

/** The first step that those after it wait for. Past an abort limit nothing goes on until the retest is within or a reason is given. */
export function blockedBy(procedure: Procedure, readings: readonly TakenReading[]): Blocked | undefined {
  for (const [step, one] of procedure.steps.entries()) {
    if (isPastAbort(one, readings)) return { step, why: 'abort' };
    if (one.section === 'gates' && isShut(one, readings)) return { step, why: 'gate' };
  }
  return undefined;
}

/** The first step with a reading past its abort limit that nobody has given a reason for: the alarm that stays in sight. */
export function alarmOf(procedure: Procedure, readings: readonly TakenReading[]): Blocked | undefined {
  const step = procedure.steps.findIndex((one) => isPastAbort(one, readings));
  return step === -1 ? undefined : { step, why: 'abort' };
}
