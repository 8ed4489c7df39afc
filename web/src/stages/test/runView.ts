import {
  blockedBy,
  judgeStep,
  latestOf,
  type Procedure,
  type ProcedureStep,
  type Verdict,
  verdictOfStep,
  type wire,
} from '@bastion/core';

/** Where a figure came from, and why one goes on past it. */
export interface HowTaken {
  readonly note?: string;
  readonly source?: string;
  readonly captureId?: number;
}

/** Takes a reading of the step that is open; the sentence says why it was not taken. */
export type OnRead = (readingId: string, value: number, how?: HowTaken) => Promise<string | undefined>;

export const currentValues = (step: ProcedureStep, readings: readonly wire.Reading[]) =>
  latestOf(step, readings);

export const stepVerdict = (step: ProcedureStep, readings: readonly wire.Reading[]): Verdict =>
  verdictOfStep(step, readings);

/** Earlier attempts at a step, oldest first, each with its verdict then. */
export function earlierAttempts(
  step: ProcedureStep,
  readings: readonly wire.Reading[],
): { attempt: number; verdict: Verdict }[] {
  const { attempt } = currentValues(step, readings);
  return Array.from({ length: attempt - 1 }, (_, index) => {
    const before = readings.filter((one) => one.stepId === step.id && one.attempt === index + 1);
    return {
      attempt: index + 1,
      verdict: judgeStep(step, new Map(before.map((one) => [one.readingId, one.value]))),
    };
  });
}

/** The step that keeps the others shut, else the first that still waits for a reading. */
export function nextStep(procedure: Procedure, readings: readonly wire.Reading[]): number {
  const blocked = blockedBy(procedure, readings);
  if (blocked !== undefined) return blocked.step;
  const index = procedure.steps.findIndex((step) => stepVerdict(step, readings) === 'pending');
  return index === -1 ? procedure.steps.length - 1 : index;
}

export const VERDICT_WORDS: Record<Verdict, string> = {
  abort: 'past the abort limit',
  outside: 'outside',
  'not-judged': 'not judged',
  within: 'within',
  recorded: 'recorded',
  pending: 'to do',
  skipped: 'skipped',
};
