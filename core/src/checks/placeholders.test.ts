import { describe, expectTypeOf, it } from 'vitest';
import type { Check, CheckContext, Own } from './check.ts';
import { checkOf, judge } from './check.ts';
import type { Found } from './finding.ts';

// These are answered by the compiler, in the type check of the test command: a wrong one does not compile.
describe('placeholders of sentences', () => {
  it('are read from the sentence, those that every finding has left out', () => {
    expectTypeOf<Own<'{{subject}}: {{reason}}, {{value}} of {{limit}}; {{kept}}.'>>().toEqualTypeOf<
      'reason' | 'kept'
    >();
    expectTypeOf<Own<'{{subject}} holds {{limit}}: {{margin}} left. Missing: {{missing}}.'>>().toBeNever();
  });

  it('a finding has the words that were given to it, and no others', () => {
    const given = (context: CheckContext) =>
      judge('x', context, {
        subject: { kind: 'design', id: 'x', label: 'X' },
        value: 1,
        limit: 2,
        unit: '',
        data: { reason: 'because' },
        working: () => ({ steps: [], inputs: [], source: '', notes: [] }),
      });
    expectTypeOf(given).returns.toEqualTypeOf<Found<'reason'>>();
    expectTypeOf<Found<'reason' | 'kept'>>().toExtend<Found<'reason'>>();
    expectTypeOf<Found<'reason'>>().not.toExtend<Found<'reason' | 'kept'>>();
    expectTypeOf<Found>().not.toExtend<Found<'reason'>>();
  });

  it('a check asks its findings for every word of its sentences, and lets what is not known have none', () => {
    type Asked = Parameters<
      typeof checkOf<
        'x',
        { over: '{{reason}}'; tight: '{{subject}}'; within: '{{kept}}'; unknown: '{{missing}}' }
      >
    >[0];
    expectTypeOf<Asked['run']>().returns.toEqualTypeOf<Found<'reason' | 'kept'>[]>();
    type Wrong = Parameters<
      typeof checkOf<'x', { over: ''; tight: ''; within: ''; unknown: '{{subject}} of {{reason}}' }>
    >[0];
    expectTypeOf<Wrong['sentences']['unknown']>().toBeNever();
    expectTypeOf(checkOf).returns.toExtend<Check>();
  });
});
