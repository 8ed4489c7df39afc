import type { SizeTest } from '../../sizing/question.ts';
import { type Check, checkOf } from '../check.ts';
import { eachStatedCable } from '../support/cables.ts';

const TESTS: ReadonlySet<SizeTest> = new Set(['drop', 'start-drop']);

/** Voltage that a cable loses, running and while the largest start of its circuit lasts. */
export const wiringDrop: Check<'wiring.drop'> = checkOf({
  id: 'wiring.drop',
  title: 'Voltage lost in cables',
  family: 'wiring',
  modes: 'once',
  sentences: {
    over: '{{subject}} of {{size}} loses {{value}} of its voltage{{when}}; {{limit}} is allowed.',
    tight: '{{subject}} loses {{value}} of {{limit}}{{when}}.',
    within: '{{subject}} loses no more voltage than is allowed.',
    unknown: '{{subject}}: what it loses is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStatedCable(context, {
      id: wiringDrop.id,
      tests: TESTS,
      looksAt: ({ lengthM }) => lengthM.known,
      whole: 'Every cable whose size and length are stated',
    }),
});
