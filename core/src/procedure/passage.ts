import type { Procedure, ProcedureStep } from './schema.ts';
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

export function verdictOfStep(step: ProcedureStep, readings: readonly TakenReading[]): Verdict {
  const { values } = latestOf(step, readings);
  return judgeStep(step, new Map([...values].map(([key, one]) => [key, one.value])));
}

/** Whether somebody has given a reason to go on with a step as it stands: a note on a reading that fails in it. */
function isReleased(step: ProcedureStep, readings: readonly TakenReading[]): boolean {
  const { values } = latestOf(step, readings);
  return step.readings.some((spec) => {
    const taken = values.get(spec.id);
    const verdict = judgeReading(spec, taken?.value);
    return (verdict === 'abort' || verdict === 'outside') && taken !== undefined && taken.note.trim() !== '';
  });
}

/**
 * The first step that those after it wait for. Past an abort limit nothing goes on until the retest is within or a reason is given. A
 * gate is shut while it is not taken, or failed without a reason.
 */
export function blockedBy(procedure: Procedure, readings: readonly TakenReading[]): Blocked | undefined {
  for (const [step, one] of procedure.steps.entries()) {
    const verdict = verdictOfStep(one, readings);
    if (verdict === 'within' || verdict === 'recorded' || isReleased(one, readings)) continue;
    if (verdict === 'abort') return { step, why: 'abort' };
    const isGate = one.section === 'gates';
    // A figure that the design lacks does not keep a gate shut: it has been read and kept.
    if (isGate && verdict !== 'not-judged') return { step, why: 'gate' };
  }
  return undefined;
}

/** The latest reading past its abort limit that nobody has given a reason for: the alarm that stays in sight. */
export function alarmOf(procedure: Procedure, readings: readonly TakenReading[]): Blocked | undefined {
  const step = procedure.steps.findIndex(
    (one) => verdictOfStep(one, readings) === 'abort' && !isReleased(one, readings),
  );
  return step === -1 ? undefined : { step, why: 'abort' };
}
