import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, forget } from '../../testkit/designs.ts';
import { bankMixedTypes } from './bankMixedTypes.ts';

checkTable(bankMixedTypes, [
  { name: 'all of one type', state: 'within', value: 1, limit: 1 },
  {
    name: 'one of another type',
    edit: (design) => {
      const [first] = bank1(design).modules;
      if (first !== undefined) first.batteryTypeId = 'lfp-51v-280ah';
    },
    state: 'within',
    value: 1,
    says: '51.2 V',
  },
  {
    name: 'one of 48 V among those of 51.2 V',
    edit: (design) => {
      const [first] = bank1(design).modules;
      if (first !== undefined) first.batteryTypeId = 'lead-48v-200ah';
    },
    state: 'over',
    value: 2,
    says: 'modules of 2 nominal voltages',
  },
  {
    name: 'type not known',
    edit: (design) => forget(bank1(design), 'batteryTypeId'),
    state: 'unknown',
    missing: 'stacks/s/bank/batteryTypeId',
  },
]);
