import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { wiringTerminals } from './wiringTerminals.ts';

checkTable(wiringTerminals, [
  { name: '70 mm² in a port for 6 to 70, 50 mm² in modules for 16 to 95', state: 'within' },
  {
    name: '95 mm² does not go into a battery port of the inverter that takes 70',
    edit: (d) => void (bank1(d).inverterLead = { lengthM: 1.5, areaMm2: 95 }),
    state: 'over',
    value: 95,
    limit: 70,
    says: 'battery port of unit 1 takes 6 to 70 mm²',
  },
  {
    name: '10 mm² is too thin for a module that takes 16 to 95',
    edit: (d) => void (bank1(d).lead = { lengthM: 1, areaMm2: 10 }),
    state: 'over',
    value: 10,
    limit: 16,
  },
]);
