import type { CompiledStack } from '../../installation/installation.ts';
import type { Known } from '../../values/known.ts';
import { type CheckContext, judge, type Measurement, unknownFinding } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

/** For checks on a stack that need a few known things and no load: unknown where they are missing, else measured. */
export function eachKnown<T, Key extends string = never>(
  check: string,
  context: CheckContext,
  unit: string,
  subjectOf: (compiled: CompiledStack) => Subject,
  needs: (compiled: CompiledStack) => Known<T> | undefined,
  measure: (compiled: CompiledStack, given: T) => Omit<Measurement<Key>, 'subject' | 'unit'> | undefined,
): Found<Key>[] {
  return context.installation.stacks.flatMap((compiled) => {
    const given = needs(compiled);
    if (given === undefined) return [];
    const subject = subjectOf(compiled);
    if (!given.known) return [unknownFinding(check, context, subject, unit, given.missing)];
    const measured = measure(compiled, given.value);
    return measured === undefined ? [] : [judge(check, context, { ...measured, subject, unit })];
  });
}
