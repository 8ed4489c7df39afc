import { checkTable } from '../../testkit/checkTable.ts';
import { bondingElectrode } from './bondingElectrode.ts';

checkTable(bondingElectrode, [
  {
    name: 'an earth of its own conductor that is kept wants none',
    edit: (d) => void Object.assign(d.site, { earthing: 'TN-S', utilityEarth: 'kept' }),
    state: 'nothing',
  },
  {
    name: 'a combined neutral may be lost: nobody says whether there is an electrode',
    edit: (d) => void (d.site.earthing = 'TN-C-S'),
    state: 'unknown',
    missing: 'site/localElectrode',
  },
  {
    name: 'none',
    edit: (d) => void Object.assign(d.site, { earthing: 'TN-C-S', localElectrode: 'none' }),
    state: 'over',
    says: 'combined neutral',
  },
  {
    name: 'there, not measured',
    edit: (d) => void Object.assign(d.site, { earthing: 'TT', localElectrode: 'yes' }),
    state: 'unknown',
    missing: 'site/electrodeOhm',
  },
  {
    name: 'there and measured',
    edit: (d) =>
      void Object.assign(d.site, { utilityEarth: 'may-be-lost', localElectrode: 'yes', electrodeOhm: 60 }),
    state: 'within',
    says: '60 Ω',
  },
]);
