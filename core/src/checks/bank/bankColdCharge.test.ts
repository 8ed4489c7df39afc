import { forget } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bankColdCharge } from './bankColdCharge.ts';

checkTable(bankColdCharge, [
  { name: '5 °C, allowed from 0', state: 'within', value: 5, limit: 0 },
  { name: 'exactly 0 °C is allowed', edit: (d) => void (d.site.equipmentLowestC = 0), state: 'within' },
  { name: '−4 °C', edit: (d) => void (d.site.equipmentLowestC = -4), state: 'over', value: -4 },
  {
    name: 'not known',
    edit: (d) => forget(d.site, 'equipmentLowestC'),
    state: 'unknown',
    missing: 'site/equipmentLowestC',
  },
]);
