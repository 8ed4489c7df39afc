import { addLoad, circuit1, forget, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { loadContinuous } from './loadContinuous.ts';

checkTable(loadContinuous, [
  { name: '2300 W at pf 1 of 1 × 5000 VA: within', state: 'within', value: 2300, limit: 5000 },
  {
    name: 'pf 0.5 doubles the VA: 2300 / 0.5 = 4600 of 5000, 8 % left',
    edit: (d) => void (item1(d).powerFactor = 0.5),
    state: 'tight',
    value: 4600,
  },
  {
    name: 'demand 0.25: 575 VA',
    edit: (d) => void (item1(d).demandFactor = 0.25),
    state: 'within',
    value: 575,
  },
  {
    name: 'three heaters: 6900 of 5000',
    edit: (d) => void (item1(d).quantity = 3),
    state: 'over',
    value: 6900,
    says: 'over by 38 %',
  },
  {
    name: 'phasor sum: 2300 W at pf 1 and 2300 W at pf 0.5: √(4600² + 3983.7²) = 6085.2',
    edit: (d) => addLoad(d, 'c2', ['L1'], { powerFactor: 0.5 }),
    state: 'over',
    value: 6085.2,
  },
  {
    name: '45 °C derates to 0.9: 4500',
    edit: (d) => void (d.site.equipmentHighestC = 45),
    state: 'within',
    limit: 4500,
  },
  {
    name: 'two in parallel: 2 · 5000 / 1.05 = 9523.8',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2', firmware: '1' });
    },
    state: 'within',
    limit: 9523.8,
  },
  {
    name: 'a set that stops when a unit is lost: told once by itself',
    edit: (d) => {
      Object.assign(stack1(d), { inverterTypeId: 'hybrid-3k-1ph', arrangement: 'parallel-single-phase' });
      stack1(d).units.push({ id: 'u2', firmware: '1' });
    },
    mode: 'unit-lost:s/u1',
    state: 'nothing',
  },
  {
    name: 'a set whose rest goes on: one unit of 5000, no sharing',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2', firmware: '1' });
    },
    mode: 'unit-lost:s/u2',
    state: 'within',
    limit: 5000,
  },
  {
    name: 'a three-phase heater puts a third on each line: 766.7',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = ['L1', 'L2', 'L3'];
    },
    subject: 's/L3',
    state: 'within',
    value: 766.67,
  },
  {
    name: 'line to line on 120° lines: each carries P / √3 = 1327.9 VA',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = ['L1', 'L2'];
    },
    subject: 's/L2',
    state: 'within',
    value: 1327.9,
  },
  {
    name: 'a three-line cabinet wrongly put on one line is credited with a third: 12000 / 3',
    edit: (d) => void (stack1(d).inverterTypeId = 'hybrid-12k-3ph'),
    state: 'within',
    limit: 4000,
  },
  {
    name: 'a circuit with nothing listed on it is not known, not nothing',
    edit: (d) =>
      void d.circuits.push({ id: 'c2', name: 'Spare', lines: ['L1'], partitionId: 'b', items: [] }),
    state: 'unknown',
    missing: 'circuits/c2/items',
    says: 'what hangs on it of Spare',
  },
  {
    name: 'no running power: unknown, and it is named',
    edit: (d) => forget(item1(d), 'runningW'),
    state: 'unknown',
    missing: 'circuits/c1/items/i1/runningW',
    says: 'running power of Heater i1',
  },
  {
    name: 'no line: unknown',
    edit: (d) => forget(circuit1(d), 'lines'),
    state: 'unknown',
    missing: 'circuits/c1/lines',
  },
  {
    name: 'no hottest air: the capacity is unknown',
    edit: (d) => forget(d.site, 'equipmentHighestC'),
    state: 'unknown',
    missing: 'site/equipmentHighestC',
  },
  {
    name: 'something missing, but the known part alone is over: over',
    edit: (d) => {
      item1(d).quantity = 3;
      addLoad(d, 'c2', ['L1']);
      const added = d.circuits[1]?.items[0];
      if (added !== undefined) forget(added, 'runningW');
    },
    state: 'over',
    value: 6900,
  },
]);
