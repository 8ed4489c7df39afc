import { mustRun } from '../../figures/loads/importance.ts';
import { isCarriedInIsland } from '../../installation/partitionKinds.ts';
import type { Path } from '../../values/problem.ts';
import { counted } from '../../words/quantity.ts';
import { type Check, judge, NO_WORKING, checkOf } from '../check.ts';
import { listWords } from '../support/network.ts';

/** How many names a sentence holds before it counts the rest. */
const NAMED = 4;

/** A circuit that must run in an outage is carried by a set when the grid goes; on the grid side, locked out or shed at transfer it is dark. */
export const loadMustRun: Check<'load.must-run'> = checkOf({
  id: 'load.must-run',
  title: 'What must run is backed up',
  family: 'load',
  modes: ['island'],
  sentences: {
    over: '{{subject}} must run in an outage and {{where}}: dark in island.',
    tight: 'Every circuit that must run is carried when the grid goes.',
    within: 'Every circuit that must run is carried when the grid goes.',
    unknown: 'Whether what must run is backed up is not known. Missing: {{missing}}.',
  },
  run: (context) => {
    const { circuits, partitions } = context.installation;
    const byId = new Map(partitions.map((partition) => [partition.id, partition]));
    const must = mustRun(circuits);
    if (must.length === 0) return [];
    const missing: Path[] = [];
    const dark = must.filter((circuit) => {
      const partition = byId.get(circuit.partitionId ?? '');
      if (partition === undefined) {
        missing.push(['circuits', circuit.id, 'partitionId']);
        return false;
      }
      if (!isCarriedInIsland(partition)) return true;
      const path = ['partitions', partition.id];
      if (partition.stackId === undefined) missing.push([...path, 'stackId']);
      if (partition.kind === 'shed' && partition.shedWhen === undefined) missing.push([...path, 'shedWhen']);
      return false;
    });
    const names = dark.slice(0, NAMED).map(({ name }) => name);
    const more = dark.length - names.length;
    const places = [...new Set(dark.map(({ partitionId }) => byId.get(partitionId ?? '')?.name ?? ''))];
    return [
      judge(loadMustRun.id, context, {
        subject: {
          kind: 'design',
          id: 'must-run',
          label: listWords([...names, ...(more > 0 ? [counted(more, 'more circuit')] : [])]),
        },
        value: dark.length,
        limit: 0,
        unit: '',
        graded: false,
        missing,
        data: { where: `${dark.length === 1 ? 'hangs' : 'hang'} on ${listWords(places)}` },
        working: () => ({
          ...NO_WORKING,
          source: 'Importance of the items of each circuit, and the partition it hangs on.',
          inputs: dark.map(({ id, name }) => ({
            label: name,
            path: ['circuits', id, 'partitionId'],
            value: undefined,
            unit: '',
          })),
          notes: dark.map(({ name }) => `${name} is dark in island.`),
        }),
      }),
    ];
  },
});
