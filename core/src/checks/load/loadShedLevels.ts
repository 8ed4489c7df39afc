import { boardPartId } from '../../installation/build/boards.ts';
import { floorSocOf } from '../../figures/bank/ofSet.ts';
import { levelStages, shedTroubles } from '../../figures/loads/shedLevels.ts';
import type { Partition } from '../../installation/facts.ts';
import type { Path } from '../../values/problem.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import type { Subject } from '../finding.ts';

const subjectOf = ({ id, name, stackId }: Partition): Subject => ({
  kind: 'part',
  id: boardPartId(id),
  label: name,
  about: [
    { kind: 'partition', id },
    ...(stackId === undefined ? [] : [{ kind: 'stack', id: stackId } as const]),
  ],
});

/** Levels of the shed stages of each set against each other and against the level at which discharge ends. */
export const loadShedLevels: Check<'load.shed-levels'> = checkOf({
  id: 'load.shed-levels',
  title: 'Levels of shed stages',
  family: 'load',
  modes: ['island'],
  sentences: {
    over: '{{subject}} {{reason}}.',
    tight: '{{subject}} {{reason}}.',
    within: '{{subject}} drops in its turn.',
    unknown: '{{subject}}: at which level it drops is not known. Missing: {{missing}}.',
  },
  run: (context) =>
    context.installation.stacks.flatMap((compiled) => {
      const troubles = shedTroubles(compiled.partitions, floorSocOf(compiled));
      return levelStages(compiled.partitions).map((partition) => {
        const trouble = troubles.find((one) => one.partition === partition);
        const path: Path = ['partitions', partition.id, 'shedBelowSoc'];
        return judge(loadShedLevels.id, context, {
          subject: subjectOf(partition),
          value: trouble === undefined ? 0 : 1,
          limit: 0,
          unit: '',
          graded: false,
          missing: partition.shedBelowSoc === undefined ? [path] : [],
          data: { reason: trouble?.reason ?? '' },
          working: () => ({
            ...NO_WORKING,
            inputs: [{ label: 'Level', path, value: partition.shedBelowSoc, unit: 'fraction' }],
            source:
              'What goes first stands highest, and every stage above the level at which discharge ends.',
          }),
        });
      });
    }),
});
