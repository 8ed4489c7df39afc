import { isUnitPerLine } from '../../catalogue/inverterType.ts';
import { all, field } from '../../values/known.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachKnown } from '../support/plain.ts';
import { stackSubject } from '../support/subjects.ts';

/** A set that makes its lines from single-phase units has the same count on each line; otherwise its weakest line governs. */
export const stackEqualLines: Check<'stack.equal-lines'> = checkOf({
  id: 'stack.equal-lines',
  title: 'Equal units on each line',
  family: 'stack',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: the lines have {{counts}} units. The weakest line governs all.',
    tight: '{{subject}}: the lines have {{counts}} units.',
    within: '{{subject}}: the same number of units on each line ({{counts}}).',
    unknown: '{{subject}}: not known which line each unit feeds. Missing: {{missing}}.',
  },
  run: (context) =>
    eachKnown(
      stackEqualLines.id,
      context,
      '',
      stackSubject,
      (compiled) =>
        isUnitPerLine(compiled.stack.arrangement)
          ? all({
              supply: context.installation.supply,
              lines: all(
                Object.fromEntries(
                  compiled.stack.units.map((unit) => [
                    unit.id,
                    field(unit.line, 'stacks', compiled.stack.id, 'units', unit.id, 'line'),
                  ]),
                ),
              ),
            })
          : undefined,
      (_compiled, { supply, lines }) => {
        const counts = supply.lines.map((line) => Object.values(lines).filter((one) => one === line).length);
        return {
          value: Math.max(...counts) - Math.min(...counts),
          limit: 0,
          graded: false,
          data: { counts: counts.join(', ') },
          working: () => ({
            ...NO_WORKING,
            source: 'Count of units per line; a set of unequal lines is planned at its weakest.',
          }),
        };
      },
    ),
});
