import { checkTable } from '../../testkit/checkTable.ts';
import { withMeters } from '../../testkit/wired.ts';
import { wiringBusShape } from './wiringBusShape.ts';

checkTable(wiringBusShape, [
  { name: 'one after the other, as planned', edit: (d) => void withMeters(d), state: 'within' },
  {
    name: 'three cables from one terminal of the controller',
    edit: (d) => withMeters(d).meters.forEach((meter) => (meter.after = 'controller')),
    state: 'over',
    value: 3,
    limit: 2,
    says: '3 cables of the meter bus meet here: it is a star',
  },
  {
    name: 'two from the controller: it stands in the middle of the line',
    edit: (d) => {
      const [, second] = withMeters(d).meters;
      Object.assign(second ?? {}, { after: 'controller' });
    },
    state: 'within',
    value: 2,
  },
  {
    name: 'a branch at a meter',
    edit: (d) => {
      const controller = withMeters(d);
      controller.meters.push({
        id: 'm4',
        role: 'load',
        typeId: 'meter-3ph-sensors',
        address: 4,
        after: 'm1',
      });
    },
    state: 'over',
    value: 3,
    subject: 'meter c/m1',
  },
  {
    name: 'a meter after itself hears nothing',
    edit: (d) => {
      const [, , third] = withMeters(d).meters;
      Object.assign(third ?? {}, { after: 'm3' });
    },
    state: 'over',
    subject: 'meter c/m3',
    says: 'no cable joins it',
  },
]);
