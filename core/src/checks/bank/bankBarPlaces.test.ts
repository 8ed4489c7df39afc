import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget, stack1 } from '../../testkit/designs.ts';
import { bankBarPlaces } from './bankBarPlaces.ts';

checkTable(bankBarPlaces, [
  { name: 'no bar of a type', state: 'nothing' },
  {
    name: '4 modules and an inverter on 8 places',
    edit: (d) => void (bank1(d).barTypeId = 'bar-400a-8'),
    state: 'within',
    value: 5,
    limit: 8,
  },
  {
    name: '8 modules and an inverter do not go onto 8 places',
    edit: (d) => {
      bank1(d).barTypeId = 'bar-400a-8';
      bank1(d).modules = Array.from({ length: 8 }, (_, n) => ({ id: `m${n}` }));
    },
    state: 'over',
    value: 9,
    limit: 8,
  },
  {
    name: 'in groups of two they need 4 places, and two inverters 2',
    edit: (d) => {
      Object.assign(bank1(d), { barTypeId: 'bar-400a-8', joining: 'groups-on-bar', groupSize: 2 });
      bank1(d).modules = Array.from({ length: 8 }, (_, n) => ({ id: `m${n}` }));
      stack1(d).units.push({ id: 'u2' });
    },
    state: 'within',
    value: 6,
  },
  {
    name: 'a chain has no bar',
    edit: (d) => {
      Object.assign(bank1(d), { joining: 'chain-diagonal', barTypeId: 'bar-400a-8' });
      forget(bank1(d), 'barSegment');
    },
    state: 'nothing',
  },
]);
