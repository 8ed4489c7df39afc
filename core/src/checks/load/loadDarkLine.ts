import { counted } from '../../words/quantity.ts';
import { type Check, NO_WORKING, checkOf } from '../check.ts';
import { eachStack } from '../support/eachLine.ts';
import { listWords } from '../support/network.ts';
import { stackSubject } from '../support/subjects.ts';

/** How many names a sentence holds before it counts the rest. */
const NAMED = 4;

/** Lines of the supply on which a set has no inverter are dark in island: what hangs on them is named once. */
export const loadDarkLine: Check<'load.dark-line'> = checkOf({
  id: 'load.dark-line',
  title: 'Lines without an inverter',
  family: 'load',
  modes: ['island'],
  sentences: {
    over: '{{subject}}: no inverter stands on {{lines}}, so in island {{dark}} dark.',
    tight: '{{subject}}: no inverter stands on {{lines}}.',
    within: '{{subject}}: no inverter stands on {{lines}}, and nothing that it backs up hangs there.',
    unknown: '{{subject}}: which lines are dark is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    eachStack(loadDarkLine.id, context, '', ({ compiled, lines, board, capability }) => {
      const bare = lines.filter((_, index) => (capability.unitsOnLine[index] ?? 0) === 0);
      if (bare.length === 0 || !capability.carries) return [];
      const dark = board.circuits.filter((circuit) => circuit.lines?.some((line) => bare.includes(line)));
      const names = dark.slice(0, NAMED).map(({ name }) => name);
      const more = dark.length - names.length;
      return [
        {
          subject: stackSubject(compiled),
          value: dark.length,
          limit: 0,
          unit: '',
          graded: false,
          missing: board.circuits.flatMap(({ id, lines: on }) =>
            on === undefined ? [['circuits', id, 'lines']] : [],
          ),
          data: {
            lines: listWords(bare),
            dark: `${listWords([...names, ...(more > 0 ? [counted(more, 'more circuit')] : [])])} ${dark.length === 1 ? 'is' : 'are'}`,
          },
          working: () => ({
            ...NO_WORKING,
            source: 'Lines of the units against the lines of the circuits that the set backs up.',
            notes: dark.map(({ name }) => `Dark: ${name}.`),
          }),
        },
      ];
    }),
});
