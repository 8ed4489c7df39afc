import { checkTable } from '../../testkit/checkTable.ts';
import { withStrings } from '../../testkit/wired.ts';
import { pvInputs } from './pvInputs.ts';

const at = (id: string, input: number, unitId = 'u1') => ({ id, stackId: 's', unitId, input, strings: 1 });

checkTable(pvInputs, [
  { name: 'alone on its input', edit: (d) => withStrings(d, 10), state: 'within' },
  {
    name: 'its like beside it',
    edit: (d) => {
      withStrings(d, 10);
      withStrings(d, 10, { id: 'a2', name: 'Second south roof' });
    },
    state: 'within',
  },
  {
    name: 'an east roof beside it',
    edit: (d) => {
      withStrings(d, 10);
      withStrings(d, 10, { id: 'a2', name: 'East roof', directionDeg: 90 });
    },
    state: 'over',
    says: 'shares the input with East roof, which differs in direction',
  },
  {
    name: 'one array on two inputs',
    edit: (d) => withStrings(d, 10, { places: [at('p', 1), at('q', 2)] }),
    state: 'over',
    says: 'is on two inputs',
  },
  {
    name: 'one array on two inverters',
    edit: (d) => {
      d.stacks[0]?.units.push({ id: 'u2' });
      withStrings(d, 10, { places: [at('p', 1), at('q', 1, 'u2')] });
    },
    state: 'over',
    says: 'is on two inverters',
  },
  {
    name: 'an input that the inverter does not have',
    edit: (d) => withStrings(d, 10, { places: [at('p', 3)] }),
    state: 'over',
    says: 'the inverter has 2 inputs',
  },
  {
    name: 'tilt not known where it is shared',
    edit: (d) => {
      withStrings(d, 10, { tiltDeg: undefined });
      withStrings(d, 10, { id: 'a2', name: 'Second', tiltDeg: undefined });
    },
    state: 'unknown',
    missing: 'arrays/a/tiltDeg',
  },
]);
