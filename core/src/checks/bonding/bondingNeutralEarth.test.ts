import { bonded, withSolidInverter, withSwitchedSet } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { forget, stack1 } from '../../testkit/designs.ts';
import { withSet } from '../../testkit/wired.ts';
import { bondingNeutralEarth } from './bondingNeutralEarth.ts';

checkTable(bondingNeutralEarth, [
  {
    name: 'a generator that does not say which set it feeds: its mode is not known to hold',
    edit: (d) => {
      bonded(d);
      withSet(d);
      Reflect.deleteProperty(d.generators[0] ?? {}, 'stackId');
    },
    mode: 'generator-port',
    state: 'unknown',
    missing: 'generators/g1/stackId',
  },
  {
    name: 'island: one relay, four-pole inverter',
    edit: bonded,
    mode: 'island',
    subject: 'board b',
    state: 'within',
    value: 1,
  },
  {
    name: 'island: a solid neutral brings the bond of the utility beside the relay, by way of the unit',
    edit: (d) => {
      bonded(d);
      withSolidInverter(d);
    },
    mode: 'island',
    subject: 'board b',
    state: 'over',
    value: 2,
    says: 'The way: grid – service main – service board – grid isolator – grid device of unit 1 – unit 1',
  },
  {
    name: 'a relay that is off leaves the neutral floating',
    edit: (d) => {
      bonded(d);
      stack1(d).neutralEarthRelay = 'off';
    },
    mode: 'island',
    subject: 'board b',
    state: 'over',
    value: 0,
    says: 'residual-current devices see no fault',
  },
  {
    name: 'a floating set behind a switch that opens the neutral',
    edit: (d) => {
      bonded(d);
      withSwitchedSet(d, 'switched');
    },
    mode: 'transfer-switch',
    subject: 'board b',
    state: 'over',
    value: 0,
  },
  {
    name: 'a bonded set on the generator port beside a relay that stays closed',
    edit: (d) => {
      bonded(d);
      withSet(d);
      for (const generator of d.generators) generator.neutralBond = 'bonded';
    },
    mode: 'generator-port',
    subject: 'board b',
    state: 'over',
    value: 2,
    says: 'the relay of Stack and the frame bond of Set. Exactly one belongs there. The way: Set – device of Set – unit 1',
  },
  {
    name: 'on grid: the bond of the utility, through everything',
    edit: bonded,
    mode: 'on-grid',
    subject: 'service-board',
    state: 'within',
    value: 1,
  },
  {
    name: 'earthing not known: how many stand on grid is not known',
    edit: (d) => {
      bonded(d);
      forget(d.site, 'earthing');
    },
    mode: 'on-grid',
    subject: 'service-board',
    state: 'unknown',
    missing: 'site/earthing',
  },
  {
    name: 'a bypass whose neutral nobody states might bring the utility into island',
    edit: (d) => {
      bonded(d);
      d.site.maintenanceBypass = 'yes';
    },
    mode: 'island',
    subject: 'board b',
    state: 'unknown',
    missing: 'site/bypassNeutral',
  },
  {
    name: 'nothing to back up',
    edit: (d) => void Object.assign(d, { stacks: [], partitions: [], circuits: [] }),
    mode: 'on-grid',
    state: 'nothing',
  },
]);
