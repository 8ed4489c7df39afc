import { closedComms } from '../../figures/bank/bankComms.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';

/** The battery bus of a closed loop: from the inverter to the first module and on, port to port, without branches. */
export const bankComms: Check<'bank.comms'> = checkOf({
  id: 'bank.comms',
  title: 'Battery bus',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('the battery bus'),
  run: (context) =>
    eachRuling(
      bankComms.id,
      context,
      'Ports of the battery type and of the inverter type.',
      bankSubject,
      closedComms,
      (_compiled, { plugged, order, type }) => ({
        reasons: plugged.reasons,
        kept: `the battery bus passes ${order?.length ?? 0} modules in one line, ${type.commsChain?.fromPort ?? ''} to ${type.commsChain?.toPort ?? ''}`,
      }),
    ),
});
