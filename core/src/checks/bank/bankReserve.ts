import { all, field } from '../../values/known.ts';
import type { Bank } from '../../installation/facts.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { bankOf } from '../support/bank.ts';
import { eachKnown } from '../support/plain.ts';
import { bankSubject } from '../support/subjects.ts';

/** The reserve kept for an outage must lie above the cut-off, or an outage may begin with nothing to give. */
export const bankReserve: Check<'bank.reserve'> = checkOf({
  id: 'bank.reserve',
  title: 'Reserve above cut-off',
  family: 'bank',
  modes: 'once',
  sentences: {
    over: '{{subject}}: the reserve of {{value}} is not above the cut-off of {{limit}}: an outage may begin with nothing to give.',
    tight: '{{subject}}: reserve {{value}}, cut-off {{limit}}.',
    within: '{{subject}}: the reserve of {{value}} is above the cut-off of {{limit}}.',
    unknown: '{{subject}}: reserve and cut-off are not both stated. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      bankReserve.id,
      context,
      'fraction',
      bankSubject,
      (compiled) => {
        if (bankOf(compiled) === undefined) return undefined;
        const stated: Bank | undefined =
          typeof compiled.stack.bank === 'object' ? compiled.stack.bank : undefined;
        const path = ['stacks', compiled.stack.id, 'bank'];
        return all({
          reserve: field(stated?.reserveSoc, ...path, 'reserveSoc'),
          cutoff: field(stated?.cutoffSoc, ...path, 'cutoffSoc'),
        });
      },
      (compiled, { reserve, cutoff }) => ({
        // Equal is not above: a hair is added to the limit so that equality fails.
        value: reserve,
        limit: cutoff + (reserve === cutoff ? Number.EPSILON * 1e8 : 0),
        bound: 'at-least',
        graded: false,
        working: () => ({
          ...NO_WORKING,
          source: 'State of charge kept for an outage against the level at which discharge stops.',
          inputs: [
            {
              label: 'Backup reserve',
              path: ['stacks', compiled.stack.id, 'bank', 'reserveSoc'],
              value: reserve * 100,
              unit: '%',
            },
            {
              label: 'Cut-off',
              path: ['stacks', compiled.stack.id, 'bank', 'cutoffSoc'],
              value: cutoff * 100,
              unit: '%',
            },
          ],
        }),
      }),
    ),
});
