import { addLoad, bank1, forget, item1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { overrideLead } from '../../testkit/wired.ts';
import { bankCurrentNominal } from './bankCurrentNominal.ts';

checkTable(bankCurrentNominal, [
  {
    name: '2300 / (0.94 · 51.2) = 47.8 A; the inverter binds at 110 A',
    state: 'within',
    value: 47.79,
    limit: 110,
    says: 'the inverters',
  },
  {
    name: 'leads of the inverters that carry 45 A by an override bind before them',
    edit: (d) => overrideLead(d, 70, 45),
    state: 'over',
    limit: 45,
  },
  {
    name: 'two modules, joining not known: 2 · 50 / 1.1 = 90.9 A bind',
    edit: (d) => {
      bank1(d).modules.splice(2);
      forget(bank1(d), 'joining');
    },
    state: 'within',
    limit: 90.91,
    says: 'the modules',
  },
  {
    // 13.263 mΩ each; the bar of 0.2 m adds 2 · 0.0193 mΩ: 2 · (13.263 + 0.0385) / (2 · 13.263 + 0.0385) = 1.00145
    name: 'two modules on bars: solved, 100 / 1.00145 = 99.86 A bind',
    edit: (d) => void bank1(d).modules.splice(2),
    state: 'within',
    limit: 99.855,
    says: 'the modules',
  },
  {
    // 3450 W of which unit 1 gives 2300: it is at its 110 A when the bank gives 3450 / 2300 · 110 = 165 A.
    name: 'three units, 2300 W on one and 1150 W on another: its own 110 A bind at 165 A, not at 330',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2'], { runningW: 1150 });
      bank1(d).breakerA = 400;
    },
    state: 'within',
    value: 71.68,
    limit: 165,
    says: 'the inverters',
  },
  {
    name: 'the same with a bank each: the 2300 W of the hardest-working, 47.8 A of 110',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2'], { runningW: 1150 });
      bank1(d).serves = 'one-unit';
    },
    state: 'within',
    value: 47.79,
    limit: 110,
  },
  {
    name: 'one module shares with nobody: 50 A, 4 % left',
    edit: (d) => void bank1(d).modules.splice(1),
    state: 'tight',
    limit: 50,
  },
  {
    name: 'a breaker of 63 A binds',
    edit: (d) => void (bank1(d).breakerA = 63),
    state: 'within',
    limit: 63,
    says: 'the battery breaker',
  },
  {
    name: 'North American practice: 63 / 1.25 = 50.4',
    edit: (d) => {
      bank1(d).breakerA = 63;
      d.site.codeProfile = 'north-american';
    },
    state: 'tight',
    limit: 50.4,
  },
  { name: 'three heaters: 143.4 A', edit: (d) => void (item1(d).quantity = 3), state: 'over', value: 143.37 },
  {
    name: 'no breaker stated',
    edit: (d) => forget(bank1(d), 'breakerA'),
    state: 'unknown',
    missing: 'stacks/s/bank/breakerA',
  },
  {
    name: 'no breaker stated, but the inverter limit is already passed',
    edit: (d) => {
      forget(bank1(d), 'breakerA');
      item1(d).quantity = 3;
    },
    state: 'over',
  },
]);
