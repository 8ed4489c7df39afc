import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, circuit1, item1, stack1, threePhase } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { loadOutput } from './loadOutput.ts';

/** A type of the same kind with a main and a small always-on output. */
function twoOutputs(design: Design): void {
  const type = SAMPLE_TYPES.find((one) => one.id === 'hybrid-5k-1ph');
  if (type?.kind !== 'inverter') throw new Error('The sample type is gone.');
  design.types.push({
    ...type,
    id: 'two-out',
    outputs: [
      { id: 'main', name: 'main output', limitA: 20 },
      { id: 'small', name: 'always-on output', limitA: 8 },
    ],
  });
  stack1(design).inverterTypeId = 'two-out';
}

checkTable(loadOutput, [
  { name: '2300 W on 230 V of a 35 A output', state: 'within', value: 10, limit: 35, says: 'backup output' },
  {
    name: 'a line whose only unit is lost is dark, and gives nothing: that is told by itself',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      d.site.surviveUnitLoss = 'yes';
    },
    mode: 'unit-lost:s/L1-1',
    state: 'nothing',
  },
  {
    name: 'one output of several is not chosen',
    edit: twoOutputs,
    state: 'unknown',
    missing: 'partitions/b/outputId',
  },
  {
    name: 'the small output: 10 A of 8 A',
    edit: (d) => {
      twoOutputs(d);
      d.partitions.forEach((one) => one.kind === 'backup' && (one.outputId = 'small'));
    },
    state: 'over',
    value: 10,
    limit: 8,
  },
  {
    name: 'two partitions on the small output count together: 3 + 6 A of 8 A',
    edit: (d) => {
      twoOutputs(d);
      item1(d).runningW = 690;
      d.partitions.push({ id: 'b2', name: 'More', kind: 'backup', stackId: 's' });
      addLoad(d, 'c2', ['L1'], { runningW: 1380 });
      Object.assign(d.circuits[1] ?? {}, { partitionId: 'b2' });
      d.partitions.forEach((one) => one.kind === 'backup' && (one.outputId = 'small'));
    },
    state: 'over',
    value: 9,
    limit: 8,
    says: 'Backup output and More L1',
  },
  {
    // n · I / (1 + ε) = 2 · 35 / 1.05 = 66.67 A; 10 + 10 A.
    name: 'two units share with their tolerance',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2' });
      addLoad(d, 'c2', ['L1']);
    },
    state: 'within',
    value: 20,
    limit: 66.667,
  },
  {
    name: 'a stage shed at the transfer is not carried',
    edit: (d) => {
      d.partitions.push({
        id: 'x',
        name: 'Stage',
        kind: 'shed',
        stackId: 's',
        shedStage: 1,
        shedWhen: 'at-transfer',
      });
      circuit1(d).partitionId = 'x';
    },
    state: 'nothing',
  },
]);
