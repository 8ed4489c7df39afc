import { checkTable } from '../../testkit/checkTable.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { circuit1, item1, stack1 } from '../../testkit/designs.ts';
import { withSet } from '../../testkit/wired.ts';
import { wiringRating } from './wiringRating.ts';

checkTable(wiringRating, [
  {
    name: '10 A behind 10 A',
    edit: (d) => void (circuit1(d).device = { ratedA: 10 }),
    state: 'within',
    value: 10,
    limit: 10,
  },
  {
    name: '20 A behind 16 A',
    edit: (d) => {
      circuit1(d).device = { ratedA: 16 };
      item1(d).quantity = 2;
    },
    state: 'over',
    value: 20,
    limit: 16,
    says: 'opens in service',
  },
  {
    name: 'North American: 10 A that stay want 12.5 A',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      circuit1(d).device = { ratedA: 10 };
    },
    state: 'over',
    value: 12.5,
  },
  {
    name: 'and 10 A that pass do not',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      circuit1(d).device = { ratedA: 10 };
      d.wiring = { cables: [{ id: 'w1', lineId: 'circuit c1', passing: 'yes' }] };
    },
    state: 'within',
    value: 10,
  },
  {
    name: 'the output device of a unit of 21.7 A',
    edit: (d) => d.devices.push({ id: 'd1', role: 'unit-output', stackId: 's', unitId: 'u1', ratedA: 20 }),
    state: 'over',
    value: 21.7,
    limit: 20,
  },
  // An isolator is held against the load itself, also where a breaker beside it is large enough.
  {
    name: 'an isolator of 8 A in a circuit of 10 A behind 16 A',
    edit: (d) => {
      d.types.push(variantOf('protective-device', 'isolator-40a-2p', { ratedA: 8 }));
      d.devices.push(
        { id: 'd1', role: 'board-main', partitionId: 'b', typeId: 'isolator-40a-2p-own' },
        { id: 'd2', role: 'unit-output', stackId: 's', unitId: 'u1', ratedA: 25 },
      );
    },
    subject: 'bus s  bus to board b bus',
    state: 'over',
    value: 10,
    limit: 8,
    says: 'is not made for it',
  },
  {
    name: 'North American: an isolator is chosen for the load, not for 1.25 times it',
    edit: (d) => {
      d.site.codeProfile = 'north-american';
      d.types.push(variantOf('protective-device', 'isolator-40a-2p', { ratedA: 11 }));
      d.devices.push({ id: 'd1', role: 'board-main', partitionId: 'b', typeId: 'isolator-40a-2p-own' });
    },
    state: 'within',
    value: 10,
    limit: 11,
  },
  {
    name: 'a device of 10 A behind a set of 17.4 A, at which its cable divides to two units',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
      withSet(d);
      d.devices.push({ id: 'd1', role: 'generator-device', generatorId: 'g1', ratedA: 10 });
    },
    state: 'nothing',
  },
  { name: 'no rating stated', state: 'nothing' },
]);
