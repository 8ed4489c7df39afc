import { addLoad, circuit1, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { balanceNeutral } from './balanceNeutral.ts';

const split = (d: Parameters<typeof stack1>[0]): void => {
  d.site.supply = 'split-phase';
  d.site.lineVoltageV = 120;
  Object.assign(stack1(d), {
    inverterTypeId: 'hybrid-11k-240-hv',
    arrangement: 'split-phase-autotransformer',
    autotransformerTypeId: 'auto-120-240-40a',
  });
};

checkTable(balanceNeutral, [
  { name: 'one line: not a question', state: 'nothing' },
  {
    name: 'one heater on one of three lines returns whole: 10 A of 35',
    edit: (d) => threePhase(d, [1, 1, 1]),
    state: 'within',
    value: 10,
    limit: 35,
  },
  {
    name: 'three heaters cancel',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2']);
      addLoad(d, 'c3', ['L3']);
    },
    state: 'within',
    value: 0,
  },
  {
    name: 'two heaters 120° apart: 10 A',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2']);
    },
    state: 'within',
    value: 10,
  },
  {
    name: 'electronics on all three: the fundamental cancels, thirds add: 3 · 0.3 · 10 = 9 A',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      item1(d).startClass = 'electronic';
      addLoad(d, 'c2', ['L2'], { startClass: 'electronic' });
      addLoad(d, 'c3', ['L3'], { startClass: 'electronic' });
    },
    state: 'within',
    value: 9,
  },
  {
    name: 'electronics between two lines have no neutral: the heater alone, 10 A',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      addLoad(d, 'c2', ['L2', 'L3'], { startClass: 'electronic' });
    },
    state: 'within',
    value: 10,
  },
  {
    name: 'split-phase, 2300 W at 120 V on one line: 19.2 A of 40',
    edit: split,
    state: 'within',
    value: 19.17,
    limit: 40,
  },
  {
    name: 'three of them on one line: 57.5 A',
    edit: (d) => {
      split(d);
      item1(d).quantity = 3;
    },
    state: 'over',
    value: 57.5,
  },
  {
    name: '240 V loads do not use the neutral',
    edit: (d) => {
      split(d);
      circuit1(d).lines = ['L1', 'L2'];
      item1(d).quantity = 3;
    },
    state: 'within',
    value: 0,
  },
  {
    name: 'no transformer chosen',
    edit: (d) => {
      split(d);
      Reflect.deleteProperty(stack1(d), 'autotransformerTypeId');
    },
    state: 'unknown',
    missing: 'stacks/s/autotransformerTypeId',
  },
]);
