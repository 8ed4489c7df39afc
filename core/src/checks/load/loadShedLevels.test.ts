import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { loadShedLevels } from './loadShedLevels.ts';

/** Shed stages 1, 2 and so on that drop at some levels; discharge ends at 15 %. */
const stages =
  (...levels: readonly (number | undefined)[]) =>
  (d: Design): void => {
    bank1(d).cutoffSoc = 0.15;
    levels.forEach((level, at) =>
      d.partitions.push({
        id: `x${at + 1}`,
        name: `Stage ${at + 1}`,
        kind: 'shed',
        stackId: 's',
        shedStage: at + 1,
        shedWhen: 'below-soc',
        ...(level === undefined ? {} : { shedBelowSoc: level }),
      }),
    );
  };

checkTable(loadShedLevels, [
  { name: 'no stages', state: 'nothing' },
  {
    name: 'the first at 60 %, the second at 40 %',
    edit: stages(0.6, 0.4),
    subject: 'board x1',
    state: 'within',
  },
  { name: 'both at one level', edit: stages(0.5, 0.5), subject: 'board x1', state: 'within' },
  {
    name: 'the first after the second',
    edit: stages(0.3, 0.5),
    subject: 'board x1',
    state: 'over',
    says: 'is stage 1 and drops below 30 %, after Stage 2, stage 2, which drops below 50 %',
  },
  { name: 'and the second is in order', edit: stages(0.3, 0.5), subject: 'board x2', state: 'within' },
  {
    name: 'at the level at which discharge ends',
    edit: stages(0.15),
    subject: 'board x1',
    state: 'over',
    says: 'discharge ends at 15 %: it never drops',
  },
  // What the type leaves unusable counts where it is more than the cut-off: 1 − 0.9 = 10 % of this type, so 8 % is below it.
  {
    name: 'below what the type can give',
    edit: (d) => {
      stages(0.08)(d);
      bank1(d).cutoffSoc = 0.05;
    },
    subject: 'board x1',
    state: 'over',
    says: 'it never drops',
  },
  {
    name: 'at which level nobody has said',
    edit: stages(undefined),
    subject: 'board x1',
    state: 'unknown',
    missing: 'partitions/x1/shedBelowSoc',
  },
]);
