import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad, circuit1, forget } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { surgeStaggered } from './surgeStaggered.ts';

/** 500 W at pf 0.5 runs at 1000 VA; its deep-pump start is 6000 VA at pf 0.5 for 1 s: 3000 W + j5196.15. */
const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

function twoPumps(design: Design, firstS: number, secondS: number): void {
  addLoad(design, 'c2', ['L1'], pump);
  addLoad(design, 'c3', ['L1'], pump);
  design.circuits.forEach((circuit) => {
    if (circuit.id === 'c2') circuit.startDelayS = firstS;
    if (circuit.id === 'c3') circuit.startDelayS = secondS;
  });
}

checkTable(surgeStaggered, [
  { name: 'no delays, nothing to say', edit: (d) => addLoad(d, 'c2', ['L1'], pump), state: 'nothing' },
  {
    name: 'both behind the same delay: as cold pickup, 2300 + 6000 + j10392.3 = 13300 VA for 1 s',
    edit: (d) => twoPumps(d, 5, 5),
    state: 'over',
    value: 13300,
    limit: 10000,
  },
  {
    // Second start on 2300 W of heat and the first pump running at 500 + j866.03: 5800 + j6062.18 = 8389.9 VA.
    name: 'one after the other: the second start on top of the first pump running',
    edit: (d) => twoPumps(d, 5, 10),
    state: 'within',
    value: 8389.9,
    limit: 10000,
    says: 'with the start delays',
  },
  {
    // The heater is dark until 30 s; the worst is the pump at 0 s on the other pump's start... both at 0: 6000 + j10392.3.
    name: 'a delayed load without a start is dark until its moment',
    edit: (d) => {
      addLoad(d, 'c2', ['L1'], pump);
      addLoad(d, 'c3', ['L1'], pump);
      circuit1(d).startDelayS = 30;
    },
    state: 'over',
    value: 12000,
    limit: 10000,
  },
  {
    name: 'a start that is not known',
    edit: (d) => {
      twoPumps(d, 5, 10);
      d.circuits.forEach((circuit) => circuit.items.forEach((item) => forget(item, 'startClass')));
    },
    state: 'unknown',
    missing: 'circuits/c2/items/c2-i/startClass',
  },
]);
