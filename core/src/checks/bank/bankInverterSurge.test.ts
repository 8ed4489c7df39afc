import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, item1 } from '../../testkit/designs.ts';
import { constantPowerA } from '../support/startCurrent.ts';
import { bankInverterSurge } from './bankInverterSurge.ts';

/** The inverter of the base design with other figures, and a pump that asks 3000 W more while it starts. */
const starting =
  (figures: Partial<InverterType> = {}) =>
  (design: Design): void => {
    const own = SAMPLE_TYPES.find((type) => type.id === 'hybrid-5k-1ph');
    if (own?.kind !== 'inverter') throw new Error('It is a sample.');
    design.types.push({ ...own, ...figures });
    addLoad(design, 'c2', ['L1'], { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' });
  };

checkTable(bankInverterSurge, [
  { name: 'nothing starts', state: 'nothing' },
  {
    name: '111.3 A of a stated 150 A',
    edit: starting({ surgeDischargeA: 150 }),
    state: 'within',
    value: 111.3,
    limit: 150,
  },
  { name: '111.3 A of a stated 100 A', edit: starting({ surgeDischargeA: 100 }), state: 'over', limit: 100 },
  {
    name: 'without one: 60 A times the 2.0 that its output holds for 0.8 s at least',
    edit: starting({ maxDischargeA: 60, overloadCurve: [{ multiple: 2, maxS: 5 }] }),
    state: 'tight',
    limit: 120,
  },
  {
    name: 'a start that is not known',
    edit: (d) => {
      starting()(d);
      Reflect.deleteProperty(item1(d), 'startClass');
    },
    state: 'unknown',
    missing: 'circuits/c1/items/i1/startClass',
  },
]);

it('a constant power on a source: 1000 W from 50 V behind 0.1 Ω are 20.87 A at 47.9 V; 0.7 Ω cannot give it', () => {
  expect(constantPowerA(1000, 50, 0.1)).toBeCloseTo(20.871, 3);
  expect(constantPowerA(1000, 50, 0)).toBe(20);
  // The largest is E² / (4 R) = 892.9 W.
  expect(constantPowerA(1000, 50, 0.7)).toBeUndefined();
});
