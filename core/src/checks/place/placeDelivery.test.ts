import { checkTable } from '../../testkit/checkTable.ts';
import { placeDelivery } from './placeDelivery.ts';

checkTable(placeDelivery, [
  { name: 'nothing ticked', state: 'nothing' },
  {
    name: 'all there',
    edit: (d) => void d.delivery.push({ id: 'unit-s-u1', state: 'ready' }),
    state: 'nothing',
  },
  {
    name: 'a damaged unit',
    edit: (d) => void d.delivery.push({ id: 'unit-s-u1', state: 'damaged', note: 'corner dented' }),
    state: 'over',
    says: 'unit 1 of Stack is damaged: corner dented',
  },
  {
    name: 'a missing tool',
    edit: (d) => void d.delivery.push({ id: 'tools-torque', state: 'missing' }),
    state: 'over',
    says: 'Torque screwdriver and wrench is missing',
  },
  {
    name: 'of something that is no longer in the design nothing is said',
    edit: (d) => void d.delivery.push({ id: 'unit-s-u9', state: 'missing' }),
    state: 'nothing',
  },
]);
