import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { portCurrent } from '../support/portCurrent.ts';

/** Backed-up load and charging through the generator port; a type without one takes nothing there. */
export const generatorPort: Check<'generator.port'> = checkOf({
  id: 'generator.port',
  title: 'Generator port current',
  family: 'generator',
  modes: ['generator-port'],
  sentences: {
    over: '{{subject}}: {{value}} through the generator port; {{units}} {{verb}} {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of {{limit}} through the generator port: {{margin}} left.',
    within: '{{subject}}: {{value}} of {{limit}} through the generator port: {{margin}} left.',
    unknown:
      '{{subject}}: the current through the generator port cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(generatorPort.id, context, 'A', (one) =>
      portCurrent(context, one, {
        limitA: one.type.generatorPortA === 'none' ? 0 : one.type.generatorPortA,
        key: 'generatorPortA',
        meaning: 'generator port limit',
        charging: true,
        isAbsent: one.type.generatorPortA === 'none',
      }),
    ),
});
