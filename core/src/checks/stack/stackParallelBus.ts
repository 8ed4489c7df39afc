import { parallelBus } from '../../installation/parallelBus.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** Every cable of the parallel bus from the stated port to the stated port, one line or one ring through all units. */
export const stackParallelBus: Check<'stack.parallel-bus'> = checkOf({
  id: 'stack.parallel-bus',
  title: 'Parallel bus',
  family: 'stack',
  modes: ['island'],
  sentences: rulingSentences('the parallel bus'),
  run: (context) =>
    eachRuling(
      stackParallelBus.id,
      context,
      'Ports and shape of the parallel bus, as the inverter type states them.',
      stackSubject,
      parallelBus,
      ({ stack }, { rule, plugged }) => ({
        reasons: plugged.reasons,
        kept: `the parallel bus is one ${rule.shape} through all ${stack.units.length} units, from ${rule.fromPort} to ${rule.toPort}`,
        notes: rule.cable === 'supplied-only' ? ['Use the cable that comes with the units only.'] : [],
      }),
    ),
});
