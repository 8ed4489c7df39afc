import { acShare } from '../../figures/capability/acShare.ts';
import { all } from '../../values/known.ts';
import { formatQuantity } from '../../words/quantity.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { stackSubject } from '../support/subjects.ts';

/** AC outputs are paralleled through conductors of equal length: spread of their resistance, on the worst line. */
export const stackAcLeads: Check<'stack.ac-leads'> = checkOf({
  id: 'stack.ac-leads',
  title: 'Equal AC leads of paralleled units',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: {{reason}}.',
    tight:
      '{{subject}}: the AC leads on {{line}} differ by {{value}}; {{allowed}} is the most for an even share. Cut them to the longest.',
    within: '{{subject}}: the AC leads on {{line}} are within {{value}} of each other.',
    unknown: '{{subject}}: how equal the AC leads are is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      stackAcLeads.id,
      context,
      'fraction',
      stackSubject,
      (compiled) => {
        const { supply, defaults } = context.installation;
        if (compiled.stack.units.length < 2) return undefined;
        if (!supply.known) return supply;
        const groups = acShare(compiled, supply.value, defaults.leadC.value);
        return groups === undefined ? undefined : all({ supply, groups });
      },
      (_compiled, { supply, groups }) => {
        const limit = context.installation.defaults.acLeadSpread.value;
        const spreads = groups.map(({ line, parts }) => {
          const ohms = parts.map((part) => part.leadOhm);
          const longest = Math.max(...ohms);
          return { line, parts, spread: longest > 0 ? (longest - Math.min(...ohms)) / longest : 0 };
        });
        const worst = spreads.reduce((most, one) => (one.spread > most.spread ? one : most));
        return {
          value: worst.spread,
          limit,
          tightMargin: 0,
          // Uneven sharing has a finding of its own; leads by themselves are at most tight.
          worst: 'tight',
          data: {
            line: supply.lines[worst.line] ?? '',
            reason: 'the AC leads differ',
            allowed: formatQuantity(limit, 'fraction'),
          },
          working: () => ({
            ...NO_WORKING,
            source: 'Resistance of the AC leads from size and length; spread = (largest - least) / largest.',
            notes: worst.parts.map(
              (part) =>
                `Unit ${part.number}: ${(1000 * part.leadOhm).toFixed(2)} mΩ, ${(100 * part.part).toFixed(1)} % of the line.`,
            ),
          }),
        };
      },
    ),
});
