import { fittedModules } from '../../figures/bank/bank.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { all } from '../../values/known.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** Everything that is bolted to a combiner bar needs a place on it: modules or groups, and inverters. */
export const bankBarPlaces: Check<'bank.bar-places'> = checkOf({
  id: 'bank.bar-places',
  title: 'Places of the combiner bar',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} leads for {{limit}} places of {{bar}} ({{what}}).',
    tight: '{{subject}}: {{value}} of {{limit}} places of {{bar}} are taken ({{what}}).',
    within: '{{subject}}: {{value}} of {{limit}} places of {{bar}} are taken ({{what}}).',
    unknown: '{{subject}}: the places of the bar cannot be counted yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankBarPlaces.id,
      context,
      '',
      bankSubject,
      ({ bar, stack }) =>
        typeof stack.bank === 'object' && stack.bank.joining?.startsWith('chain') !== true
          ? all({ bar })
          : undefined,
      ({ stack }, { bar }) => {
        if (bar === 'none' || typeof stack.bank !== 'object') return undefined;
        const { joining, groupSize, modules } = stack.bank;
        const byGroups = joining === 'groups-on-bar' && groupSize !== undefined;
        const leads = byGroups ? Math.ceil(modules.length / groupSize) : fittedModules(stack.bank).length;
        const units = isOwnBank(stack) ? 1 : stack.units.length;
        const perPlace = bar.terminals?.find(({ port }) => port === 'bar')?.mostConductors ?? 1;
        return {
          value: leads + units,
          limit: bar.places * perPlace,
          graded: false,
          data: {
            bar: bar.name,
            what: `${leads} for ${byGroups ? 'groups' : 'modules'}, ${units} for inverters`,
          },
          working: () => ({ ...NO_WORKING, source: 'Places of the bar type, and conductors each takes.' }),
        };
      },
    ),
});
