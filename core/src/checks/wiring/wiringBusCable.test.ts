import { checkTable } from '../../testkit/checkTable.ts';
import { threeOnABus, wireLink, withMeters } from '../../testkit/wired.ts';
import { wiringBusCable } from './wiringBusCable.ts';

const METER = 'controller c – meter c/m1';

// The controller allows 300 m, the meter 200 m: the shorter counts. The parallel bus takes the supplied cable alone.
checkTable(wiringBusCable, [
  {
    name: '250 m where the meter allows 200 m',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { lengthM: 250 });
    },
    state: 'over',
    value: 250,
    limit: 200,
  },
  {
    name: '195 m of 200 m',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { lengthM: 195 });
    },
    state: 'tight',
  },
  {
    name: '20 m of 200 m',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { lengthM: 20 });
    },
    state: 'within',
  },
  {
    name: 'leads of a sensor lengthened to 25 m of 15 m',
    edit: (d) => {
      d.instruments.push({
        id: 'n',
        kind: 'sensor',
        typeId: 'sensor-100a',
        at: 'service',
        line: 'L1',
        readBy: 's',
      });
      wireLink(d, 'unit s/u1 – instrument n', { lengthM: 25 });
    },
    state: 'over',
    value: 25,
    limit: 15,
  },
  {
    name: 'a network cable on a parallel bus of supplied cables',
    edit: (d) => {
      threeOnABus(d);
      wireLink(d, 'parallel-bus s a', { cable: 'network' });
    },
    state: 'over',
    says: 'only the cable that comes with it',
  },
  {
    name: 'the supplied cable',
    edit: (d) => {
      threeOnABus(d);
      wireLink(d, 'parallel-bus s a', { cable: 'supplied' });
    },
    state: 'nothing',
  },
]);
