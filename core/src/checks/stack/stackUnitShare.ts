import { acShare } from '../../figures/capability/acShare.ts';
import { magnitude, ZERO } from '../../network/complex.ts';
import { type Check, type Measurement, NO_WORKING, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { stackSubject } from '../support/subjects.ts';
import { loadCaseWords, symbol } from '../support/workings.ts';

/** What the hardest-working unit of a line carries through unequal AC leads, against its own rating. */
export const stackUnitShare: Check<'stack.unit-share'> = checkOf({
  id: 'stack.unit-share',
  title: 'Hardest-working unit',
  family: 'stack',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: unit {{unit}} would carry {{value}} on {{line}} through its shorter lead; it is rated {{limit}}: over by {{margin}}.',
    tight: '{{subject}}: unit {{unit}} carries {{value}} of {{limit}} on {{line}}: {{margin}} left.',
    within: '{{subject}}: unit {{unit}} carries {{value}} of {{limit}} on {{line}}: {{margin}} left.',
    unknown: '{{subject}}: how the units share is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(stackUnitShare.id, context, 'VA', (one): (Measurement<'line' | 'unit'> | undefined)[] => {
      const { compiled, board, type, capability } = one;
      const { supply, defaults } = context.installation;
      if (!supply.known || capability.stopped) return [];
      const groups = acShare(compiled, supply.value, defaults.leadC.value, context.mode.lostUnit?.unitId);
      if (groups === undefined) return [];
      const subject = stackSubject(compiled);
      if (!groups.known)
        return [
          {
            subject,
            value: undefined,
            limit: undefined,
            unit: 'VA',
            missing: groups.missing,
            working: () => NO_WORKING,
          },
        ];
      const units = groups.value.flatMap(({ line, parts }) => {
        const lineVa = magnitude(board.continuous.knownPart[line] ?? ZERO);
        // What the line carries in all, without the allowance for sharing: here it is worked out.
        const n = capability.unitsOnLine[line] ?? 0;
        const limitVa = n === 0 ? 0 : ((capability.perLineVa[line] ?? 0) * (1 + capability.sharing)) / n;
        return parts.map((part) => ({ ...part, line, lineVa, limitVa, va: lineVa * part.part }));
      });
      const [worst] = [...units].sort((a, b) => a.limitVa - a.va - (b.limitVa - b.va));
      if (worst === undefined) return [];
      return [
        {
          subject,
          value: worst.va,
          limit: worst.limitVa,
          unit: 'VA',
          missing: board.continuous.missing,
          data: { unit: worst.number, line: supply.value.lines[worst.line] ?? '' },
          working: () => ({
            steps: [
              {
                symbol: 'S_u',
                meaning: 'load of the hardest-working unit',
                formula: 'S_line · p',
                symbols: [
                  symbol('S_line', `load of the line, ${loadCaseWords(board)}`, worst.lineVa, 'VA'),
                  symbol('p', 'its part of the line, by conductance of lead and output', worst.part, '', [
                    'stacks',
                    compiled.stack.id,
                    'units',
                    worst.unit.id,
                    'acLead',
                  ]),
                ],
                value: worst.va,
                unit: 'VA',
              },
            ],
            inputs: [],
            source: 'Paralleled voltage sources share by conductance: p = g / Σg, g = 1 / (R_out + R_lead).',
            notes: [
              type.outputMilliohm === undefined
                ? 'The type does not state how far its output gives way: leads alone are the least even case.'
                : `Output of the type taken as ${type.outputMilliohm} mΩ.`,
              ...units.map(
                (unit) =>
                  `${supply.value.lines[unit.line] ?? ''}, unit ${unit.number}: ${(100 * unit.part).toFixed(1)} %, ${unit.va.toFixed(0)} VA.`,
              ),
            ],
          }),
        },
      ];
    }),
});
