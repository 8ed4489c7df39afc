import { checkTable } from '../../testkit/checkTable.ts';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { addLoad, bank1, forget, item1, stack1 } from '../../testkit/designs.ts';
import { bankBreakerSurge } from './bankBreakerSurge.ts';

const breakerType = () => {
  const found = SAMPLE_TYPES.find((type) => type.id === 'dc-breaker-125a');
  if (found?.kind !== 'protective-device') throw new Error('It is a sample.');
  return found;
};
const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

checkTable(bankBreakerSurge, [
  { name: 'nothing starts', state: 'nothing' },
  {
    // P = 5300 / 0.94 = 5638.3 W. Near empty the modules still rest above 51.2 V, so E = 51.2 V. R: a quarter of 13.263 mΩ, two poles of
    // 1.5 m at 70 mm² (0.277 · 1.1179 · 1.5 + 0.2 = 0.6645 mΩ) and the breaker's 0.4 mΩ: 5.045 mΩ, and the bar a little.
    // I = (51.2 − √(51.2² − 4 · 0.005045 · 5638.3)) / (2 · 0.005045) = 111.34 A, where nominal volts would say 110.1.
    name: 'starting 5300 W nearly empty for 0.8 s; 125 A breaker holds 4 times for 1.5 s: 500 A',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      bank1(d).breakerTypeId = 'dc-breaker-125a';
    },
    state: 'within',
    value: 111.35,
    limit: 500,
  },
  {
    name: 'for 40 s it holds 1.5 times: 187.5 A',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], { ...pump, startMultiple: 6, startDurationS: 40, startPowerFactor: 0.5 });
      bank1(d).breakerTypeId = 'dc-breaker-125a';
    },
    state: 'within',
    limit: 187.5,
  },
  {
    name: 'only its rating typed: its curve is not known',
    edit: (d) => addLoad(d, 'c2', ['L1'], pump),
    state: 'unknown',
    missing: 'stacks/s/bank/breakerTypeId',
  },
  {
    // Of two inverters each draws half: 111.3 / 2, less what the second lead spares. A 16 A device holds 4 times: 64 A.
    name: 'a device of each inverter is held against the current of that inverter',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      Object.assign(stack1(d), {
        arrangement: 'parallel-single-phase',
        units: ['u1', 'u2'].map((id) => ({ id, barPlace: 1 })),
      });
      forget(bank1(d), 'breakerA');
      d.types.push({ ...breakerType(), id: 'small', ratedA: 16 });
      for (const unitId of ['u1', 'u2'])
        d.devices.push({
          id: `d-${unitId}`,
          role: 'battery-unit',
          stackId: 's',
          unitId,
          fitted: 'yes',
          typeId: 'small',
        });
    },
    subject: 's battery-unit',
    state: 'within',
    value: 55.57,
    limit: 64,
    says: 'the battery device of an inverter',
  },
  {
    name: 'starts not known',
    edit: (d) => forget(item1(d), 'startClass'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/startClass',
  },
]);
