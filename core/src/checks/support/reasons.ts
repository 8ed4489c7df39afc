import type { CompiledStack } from '../../installation/installation.ts';
import type { Known } from '../../values/known.ts';
import { type CheckContext, NO_WORKING } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { eachKnown } from './plain.ts';

/** What a rule has to say: reasons why it is not kept, and in words what was looked at. */
export interface Ruling {
  readonly reasons: readonly string[];
  readonly kept: string;
  readonly notes?: readonly string[];
}

/** For rules that are kept or not: over with the reasons in words, or within with what was found. */
export function eachRuling<T>(
  check: string,
  context: CheckContext,
  source: string,
  subjectOf: (compiled: CompiledStack) => Subject,
  needs: (compiled: CompiledStack) => Known<T> | undefined,
  rule: (compiled: CompiledStack, given: T) => Ruling | undefined,
): Found<'reason' | 'kept'>[] {
  return eachKnown(check, context, '', subjectOf, needs, (compiled, given) => {
    const ruling = rule(compiled, given);
    if (ruling === undefined) return undefined;
    return {
      value: ruling.reasons.length,
      limit: 0,
      graded: false,
      data: { reason: ruling.reasons.join('; '), kept: ruling.kept },
      working: () => ({ ...NO_WORKING, source, notes: [...ruling.reasons, ...(ruling.notes ?? [])] }),
    };
  });
}

/** Sentences of a rule that is kept or not. */
export const rulingSentences = <const What extends string>(what: What) =>
  ({
    over: '{{subject}}: {{reason}}.',
    tight: '{{subject}}: {{reason}}.',
    within: '{{subject}}: {{kept}}.',
    unknown: `{{subject}}: ${what} cannot be judged yet. Missing: {{missing}}.`,
  }) as const;
