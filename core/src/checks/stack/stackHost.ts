import { all, field, known } from '../../values/known.ts';
import { unitName } from '../../installation/parallelBus.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

/** One unit of a set is the host: it holds the battery bus and the meter. */
export const stackHost: Check<'stack.host'> = checkOf({
  id: 'stack.host',
  title: 'Host of the set',
  family: 'stack',
  modes: ['island'],
  sentences: rulingSentences('which unit is the host'),
  run: (context) =>
    eachRuling(
      stackHost.id,
      context,
      'The host rule of the inverter type.',
      stackSubject,
      ({ stack, type }) => {
        if (stack.units.length < 2) return undefined;
        if (!type.known) return type;
        const rule = field(type.value.hostRule, 'types', type.value.id, 'hostRule');
        return rule.known && rule.value === 'first-powered'
          ? all({ rule, hostId: known(stack.hostUnitId) })
          : all({ rule, hostId: field(stack.hostUnitId, 'stacks', stack.id, 'hostUnitId') });
      },
      (compiled, { rule, hostId }) => {
        const { stack } = compiled;
        if (hostId === undefined)
          return {
            reasons: [],
            kept: 'the unit that is powered first becomes the host: power one alone first',
          };
        const reasons = stack.units.some((unit) => unit.id === hostId)
          ? []
          : ['the unit named as host is not in the set'];
        const why = {
          'first-powered': 'power it first',
          'holds-battery-and-meter': 'battery bus and meter are wired to it',
          'chosen-in-settings': 'choose it in its settings',
        }[rule];
        return { reasons, kept: `${unitName(compiled, hostId)} is the host: ${why}` };
      },
    ),
});
