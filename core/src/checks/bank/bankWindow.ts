import { all } from '../../values/known.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';
import { formatNumber } from '../../words/quantity.ts';

/** The bank must stay inside the inverter's battery window at both ends of its own range. */
export const bankWindow: Check<'bank.window'> = checkOf({
  id: 'bank.window',
  title: 'Battery voltage window',
  family: 'bank',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{range}} is not inside the inverter window of {{window}}.',
    tight: '{{subject}}: {{range}}, inverter window {{window}}.',
    within: '{{subject}}: {{range}} is inside the inverter window of {{window}}.',
    unknown: '{{subject}}: the voltage window cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankWindow.id,
      context,
      'V',
      bankSubject,
      (compiled) => {
        const bank = bankOf(compiled);
        return bank === undefined ? undefined : all({ bank, type: compiled.type });
      },
      (_compiled, { bank, type }) => {
        const above = bank.maxV - type.batteryWindowV.max;
        const below = type.batteryWindowV.min - bank.minV;
        const high = above >= below;
        return {
          value: high ? bank.maxV : bank.minV,
          limit: high ? type.batteryWindowV.max : type.batteryWindowV.min,
          bound: high ? 'at-most' : 'at-least',
          graded: false,
          data: {
            range: `${formatNumber(bank.minV)} to ${formatNumber(bank.maxV)} V`,
            window: `${type.batteryWindowV.min} to ${type.batteryWindowV.max} V`,
          },
          working: () => ({
            ...NO_WORKING,
            source: 'Lowest and highest module voltage times the modules in series.',
            notes: [`${bank.seriesCount} in series: ${bank.type.minV} to ${bank.type.maxV} V each.`],
          }),
        };
      },
    ),
});
