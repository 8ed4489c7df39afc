import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { closedLoop, wireLink, withMeters } from '../../testkit/wired.ts';
import { wiringBusPairs } from './wiringBusPairs.ts';

const METER = 'controller c – meter c/m1';

// The controller has its bus on pins 4 and 5, the meter on terminals A and B; BAT and UP both on 4 and 5; IN has them on 5 and 4.
checkTable(wiringBusPairs, [
  {
    name: 'nobody has said how it is made',
    edit: (d) => void withMeters(d),
    state: 'nothing',
  },
  {
    name: 'one pair, straight, shield at one end',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { cable: 'pair', pairs: 'one', polarity: 'straight', shield: 'one-end' });
    },
    state: 'within',
  },
  {
    name: '+ and − exchanged',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { cable: 'pair', polarity: 'swapped' });
    },
    state: 'over',
    says: 'exchanged between the ends',
  },
  {
    name: 'cores of several pairs bunched',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { cable: 'pair', pairs: 'bunched' });
    },
    state: 'over',
    says: 'bunched',
  },
  {
    name: 'a plugged cable to a meter of screw terminals A and B',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { cable: 'network' });
    },
    state: 'over',
    says: 'pins 4 and 5 to where A and B are wanted',
  },
  {
    name: 'a straight cable between a host on 4/5 and modules on 5/4',
    edit: (d) => {
      bank1(d).batteryTypeId = 'lfp-51v-280ah';
      closedLoop(d);
      wireLink(d, 'battery-bus s l1', { cable: 'network' });
      const [first] = bank1(d).comms?.links ?? [];
      Object.assign(first ?? {}, { toPort: 'IN' });
    },
    state: 'over',
    says: 'leads + (pin 4) to − (pin 4)',
  },
  {
    name: 'a straight cable between 4/5 and 4/5',
    edit: (d) => {
      closedLoop(d);
      wireLink(d, 'battery-bus s l1', { cable: 'network' });
    },
    state: 'within',
  },
  {
    name: 'a shield earthed at both ends',
    edit: (d) => {
      withMeters(d);
      wireLink(d, METER, { cable: 'pair', shield: 'both-ends' });
    },
    state: 'tight',
    says: 'both ends',
  },
]);
