import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { item1, stack1 } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { surgeOutput } from './surgeOutput.ts';

type Output = NonNullable<InverterType['outputs']>[number];

/** A small output of 8 A, with a pump on it: 230 W at 1, starting at four times for 2 s at pf 1. */
const small =
  (over: Partial<Output> = {}) =>
  (design: Design): void => {
    const type = SAMPLE_TYPES.find((one) => one.id === 'hybrid-5k-1ph');
    if (type?.kind !== 'inverter') throw new Error('The sample type is gone.');
    design.types.push({
      ...type,
      id: 'two-out',
      overloadCurve: [{ multiple: 1.5, maxS: 5 }],
      outputs: [
        { id: 'main', name: 'main output', limitA: 20 },
        { id: 'small', name: 'always-on output', limitA: 8, ...over },
      ],
    });
    stack1(design).inverterTypeId = 'two-out';
    design.partitions.forEach((one) => one.kind === 'backup' && (one.outputId = 'small'));
    Object.assign(item1(design), {
      runningW: 805,
      startMultiple: 4,
      startDurationS: 2,
      startPowerFactor: 1,
    });
  };

checkTable(surgeOutput, [
  { name: 'a type with one output', state: 'nothing' },
  {
    name: '4 · 805 / 230 = 14 A of 8 · 1.5 = 12 A',
    edit: small(),
    state: 'over',
    value: 14,
    limit: 12,
    says: 'from the always-on output',
  },
  {
    name: 'of 16 A that the output takes for short',
    edit: small({ surgeA: 16 }),
    state: 'within',
    value: 14,
    limit: 16,
  },
]);
