import { type Check, checkOf } from '../check.ts';
import { eachLine } from '../support/eachLine.ts';
import { portCurrent } from '../support/portCurrent.ts';

/** Pass-through and charging together at the grid port. */
export const gridPort: Check<'grid.port'> = checkOf({
  id: 'grid.port',
  title: 'Grid port current',
  family: 'grid',
  modes: ['on-grid', 'transfer-switch'],
  sentences: {
    over: '{{subject}}: {{value}} through the grid port; {{units}} {{verb}} {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: {{value}} of {{limit}} through the grid port: {{margin}} left.',
    within: '{{subject}}: {{value}} of {{limit}} through the grid port: {{margin}} left.',
    unknown: '{{subject}}: the current through the grid port cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachLine(gridPort.id, context, 'A', (one) =>
      portCurrent(context, one, {
        limitA: one.type.gridPortA,
        key: 'gridPortA',
        meaning: 'grid port limit',
        charging: true,
      }),
    ),
});
