import { judgeStep, type Procedure, type ProcedureStep, type Verdict, type wire } from '@bastion/core';

/** Readings of a step in its latest attempt, with the latest correction of each. */
export function currentValues(
  step: ProcedureStep,
  readings: readonly wire.Reading[],
): { attempt: number; values: Map<string, wire.Reading> } {
  const own = readings.filter((one) => one.stepId === step.id);
  const attempt = Math.max(1, ...own.map((one) => one.attempt));
  const values = new Map<string, wire.Reading>();
  // Later rows stand for earlier ones; the earlier ones stay in the record.
  for (const one of own) if (one.attempt === attempt) values.set(one.readingId, one);
  return { attempt, values };
}

export const numbersOf = (values: ReadonlyMap<string, wire.Reading>): Map<string, number> =>
  new Map([...values].map(([key, one]) => [key, one.value]));

export function stepVerdict(step: ProcedureStep, readings: readonly wire.Reading[]): Verdict {
  return judgeStep(step, numbersOf(currentValues(step, readings).values));
}

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

/** The first step that still waits for a reading. */
export function nextStep(procedure: Procedure, readings: readonly wire.Reading[]): number {
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
};
