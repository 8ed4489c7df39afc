import type { BatteryType } from '../../catalogue/batteryType.ts';
import { bankTypesOf } from '../../figures/bank/ofSet.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** Nominal voltages that differ, of the types of a bank. */
function voltagesOf(types: readonly BatteryType[]): readonly number[] {
  const distinct: number[] = [];
  for (const { nominalV } of types)
    if (!distinct.some((one) => Math.abs(one - nominalV) <= SAME_VOLTAGE * one)) distinct.push(nominalV);
  return distinct;
}

/** Nominal voltages of modules in parallel that count as one: a share of the first. */
const SAME_VOLTAGE = 0.01;

/** Modules of several types in parallel have one nominal voltage; whether their makers understand each other is a question of the loop. */
export const bankMixedTypes: Check<'bank.mixed-types'> = checkOf({
  id: 'bank.mixed-types',
  title: 'Modules that stand in parallel',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}} has modules of {{value}} nominal voltages on it: {{names}}.',
    tight: '{{subject}} has modules of one nominal voltage: {{names}}.',
    within: '{{subject}} has modules of one nominal voltage: {{names}}.',
    unknown: '{{subject}}: the types of its modules are not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankMixedTypes.id,
      context,
      '',
      bankSubject,
      (compiled) => (typeof compiled.stack.bank === 'object' ? bankTypesOf(compiled) : undefined),
      (_compiled, types) => ({
        value: voltagesOf(types).length,
        limit: 1,
        graded: false,
        data: { names: types.map((type) => `${type.name} (${type.nominalV} V)`).join(', ') },
        working: () => ({ ...NO_WORKING, source: 'Types of the modules that are fitted.' }),
      }),
    ),
});
