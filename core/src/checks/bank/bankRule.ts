import { all, field } from '../../values/known.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { type Check, checkOf } from '../check.ts';
import { eachRuling, rulingSentences } from '../support/reasons.ts';
import { bankSubject } from '../support/subjects.ts';

/** Whether the inverters may share one bank: some types want one each, some want to share. */
export const bankRule: Check<'bank.rule'> = checkOf({
  id: 'bank.rule',
  title: 'One bank for all, or one each',
  family: 'bank',
  modes: ['island'],
  sentences: rulingSentences('whether these inverters may share a bank'),
  run: (context) =>
    eachRuling(
      bankRule.id,
      context,
      'Battery rule of the inverter type.',
      bankSubject,
      ({ stack, type }) => {
        if (typeof stack.bank !== 'object' || stack.units.length < 2) return undefined;
        if (!type.known) return type;
        return all({ type, rule: field(type.value.batteryRule, 'types', type.value.id, 'batteryRule') });
      },
      ({ stack }, { type, rule }) => ({
        reasons:
          rule === 'own-only' && !isOwnBank(stack)
            ? [
                `${stack.units.length} units share this bank, but ${type.name} wants a bank of its own for each`,
              ]
            : rule === 'shared-only' && isOwnBank(stack)
              ? [`each unit has a bank of its own, but units of ${type.name} must share one`]
              : [],
        kept: isOwnBank(stack)
          ? `${type.name} may have a bank of its own each`
          : `${type.name} may share a bank`,
      }),
    ),
});
