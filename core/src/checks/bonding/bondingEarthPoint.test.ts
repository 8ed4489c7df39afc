import { bonded } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bondingEarthPoint } from './bondingEarthPoint.ts';

checkTable(bondingEarthPoint, [
  { name: 'all on one point', edit: bonded, state: 'within', says: 'main earthing bar' },
  { name: 'nothing stated', state: 'unknown', missing: 'earthPoints' },
  {
    name: 'a second point',
    edit: (d) => {
      bonded(d);
      d.earthPoints.push({ id: 'e2', name: 'rod at the shed', joins: ['chassis'] });
    },
    state: 'over',
    says: '2 earthing points',
  },
  {
    name: 'the chassis is not on it',
    edit: (d) => void (d.earthPoints = [{ id: 'e1', name: 'bar', joins: ['backed-up-earth', 'grid-earth'] }]),
    state: 'over',
    says: 'the chassis of the inverters is not joined at bar',
  },
  {
    name: 'without a grid there is no grid earth to join',
    edit: (d) => {
      d.site.grid = 'none';
      d.earthPoints = [{ id: 'e1', name: 'bar', joins: ['backed-up-earth', 'chassis'] }];
    },
    state: 'within',
  },
]);
