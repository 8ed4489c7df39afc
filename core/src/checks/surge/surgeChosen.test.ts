import { checkTable } from '../../testkit/checkTable.ts';
import { addLoad } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { surgeChosen } from './surgeChosen.ts';

const pump = { runningW: 500, powerFactor: 0.5, startClass: 'deep-pump' } as const;

function choose(design: Design, ...circuitIds: string[]): void {
  for (const id of ['c2', 'c3', 'c4']) addLoad(design, id, ['L1'], pump);
  design.startCases.push({
    id: 'k',
    name: 'Pumps',
    stackId: 's',
    starts: circuitIds.map((circuitId, index) => ({ id: `x${index}`, circuitId, itemId: `${circuitId}-i` })),
  });
}

checkTable(surgeChosen, [
  { name: 'nothing chosen', edit: (d) => choose(d), state: 'nothing' },
  {
    // 2300 + third pump 500 + two starts 6000 = 8800 W; j866.03 + 2 · 5196.15 = j11258.3: 14289.5 VA.
    name: 'two of three together, the third at its expected peak',
    edit: (d) => choose(d, 'c2', 'c3'),
    state: 'over',
    value: 14289.5,
    limit: 10000,
    says: 'Pumps',
  },
  {
    // 2300 + 2 · 500 + 3000 = 6300 W; 2 · 866.03 + 5196.15 = j6928.2: 9364.3 VA of 10 kVA.
    name: 'one alone',
    edit: (d) => choose(d, 'c2'),
    state: 'tight',
    value: 9364.3,
  },
  {
    name: 'a chosen start that has gone from the board',
    edit: (d) => choose(d, 'c9'),
    state: 'unknown',
    missing: 'startCases/k/starts/x0',
    says: 'start 1 of Pumps',
  },
  {
    name: 'a chosen start whose circuit has no place: the place is asked for',
    edit: (d) => {
      choose(d, 'c2');
      const circuit = d.circuits.find(({ id }) => id === 'c2');
      if (circuit !== undefined) delete circuit.partitionId;
    },
    state: 'unknown',
    missing: 'circuits/c2/partitionId',
  },
]);
