import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { stackUnitTypes } from './stackUnitTypes.ts';

const pair =
  (over: Partial<ReturnType<typeof stack1>['units'][number]>) => (d: Parameters<typeof stack1>[0]) => {
    stack1(d).arrangement = 'parallel-single-phase';
    stack1(d).units = [
      { id: 'u1', busAddress: 1 },
      { id: 'u2', busAddress: 2, ...over },
    ];
  };

checkTable(stackUnitTypes, [
  { name: 'nothing said of single units', state: 'nothing' },
  { name: 'alike', edit: pair({}), state: 'within' },
  {
    name: 'another type',
    edit: pair({ inverterTypeId: 'hybrid-3k-1ph' }),
    state: 'over',
    says: '1 of its units are of another type',
  },
  {
    name: 'the same address',
    edit: pair({ busAddress: 1 }),
    state: 'over',
    says: 'bus address 1 is set on more than one unit',
  },
  {
    name: '60 Hz on a site of 50 Hz',
    edit: pair({ frequencyHz: 60 }),
    state: 'over',
    says: 'unit 2 is set to 60 Hz',
  },
]);
