import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { portCurrent } from '../support/portCurrent.ts';

/** Current of the backed-up board through the unit while the grid (or a set in its place) is there. */
export const gridPassThrough: Check<'grid.pass-through'> = checkOf({
  id: 'grid.pass-through',
  title: 'Pass-through current',
  family: 'grid',
  modes: ['on-grid', 'transfer-switch'],
  sentences: {
    over: '{{subject}}: {{value}} through the pass-through relay; {{units}} {{verb}} {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of {{limit}} through the pass-through relay: {{margin}} left.',
    within: '{{subject}}: {{value}} of {{limit}} through the pass-through relay: {{margin}} left.',
    unknown:
      '{{subject}}: the current through the pass-through relay cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(gridPassThrough.id, context, 'A', (one) =>
      portCurrent(context, one, {
        limitA: one.type.passThroughA,
        key: 'passThroughA',
        meaning: 'pass-through relay limit',
        charging: false,
      }),
    ),
});
