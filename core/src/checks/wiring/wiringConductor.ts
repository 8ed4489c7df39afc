import type { SizeTest } from '../../sizing/question.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStatedCable } from '../support/cables.ts';

const TESTS: ReadonlySet<SizeTest> = new Set(['load', 'terminal-column', 'parallel']);

/** Cables of alternating current and of PV strings against what they carry. Battery leads have a check of their own. */
export const wiringConductor: Check<'wiring.conductor'> = checkOf({
  id: 'wiring.conductor',
  title: 'Cables carry their load',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} has to carry {{value}}; {{size}} as it is laid allows {{limit}}{{when}}.',
    tight: '{{subject}} carries {{value}} of {{limit}}{{when}}.',
    within: '{{subject}} carries its load.',
    unknown: '{{subject}}: whether it carries its load is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStatedCable(context, {
      id: wiringConductor.id,
      tests: TESTS,
      looksAt: ({ use }) => use === 'ac' || use === 'pv' || use === 'control',
      whole: 'Every cable whose size is stated',
    }),
});
