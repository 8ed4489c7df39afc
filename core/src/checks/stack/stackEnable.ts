import type { InverterType } from '../../catalogue/inverterType.ts';
import { all, field, type Known, known } from '../../values/known.ts';
import { type Check, checkOf } from '../check.ts';
import { partOf } from '../support/network.ts';
import { eachRuling, type Ruling, rulingSentences } from '../support/reasons.ts';
import { stackSubject } from '../support/subjects.ts';

type Input = NonNullable<InverterType['enableInput']>;

const KEPT = {
  'closed-runs': {
    yes: 'its enable switch lets it run while it is closed, and parts nothing',
    none: 'its enable input is bridged: without that it does not start',
  },
  'open-runs': {
    yes: 'its enable switch stops it when it closes, and parts nothing',
    none: 'its enable input stays open',
  },
} as const;

function ruled(input: Input, fitted: 'yes' | 'none'): Ruling {
  if (input !== 'none') return { reasons: [], kept: KEPT[input][fitted] };
  return fitted === 'yes'
    ? { reasons: ['its type has no enable input: the switch that is listed stops nothing'], kept: '' }
    : { reasons: [], kept: 'its type has no enable input, and no switch is listed' };
}

/** Somebody who trusts a switch to stop a set has to have one that does; an input without one has to be bridged, or the set does not start. */
export const stackEnable: Check<'stack.enable'> = checkOf({
  id: 'stack.enable',
  title: 'Enable switch',
  family: 'stack',
  modes: 'once',
  sentences: rulingSentences('its enable switch'),
  run: (context) =>
    eachRuling(
      stackEnable.id,
      context,
      'Enable input of the inverter type, and the switch listed for it.',
      stackSubject,
      ({ stack, type }): Known<{ input: Input; fitted: 'yes' | 'none' }> | undefined => {
        const { network } = context.installation;
        if (!network.known || !type.known) return undefined;
        const part = partOf(network.value, `enable ${stack.id}`);
        if (part === undefined) return undefined;
        const fitted: Known<'yes' | 'none'> = part.fitted ?? known('none');
        if (fitted.known && fitted.value === 'none' && type.value.enableInput === undefined) return undefined;
        return all({ input: field(type.value.enableInput, 'types', type.value.id, 'enableInput'), fitted });
      },
      (_, { input, fitted }) => ruled(input, fitted),
    ),
});
