import { forget, stack1, threePhase } from '../../testkit/designs.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stackArrangement } from './stackArrangement.ts';

checkTable(stackArrangement, [
  { name: 'one unit on single-phase', state: 'within' },
  { name: 'three-phase from single', edit: (d) => threePhase(d, [1, 1, 1]), state: 'within' },
  {
    name: 'three-phase from two units',
    edit: (d) => threePhase(d, [1, 1, 0]),
    state: 'over',
    says: 'at least three units',
  },
  {
    name: 'a type that does not make it',
    edit: (d) => {
      threePhase(d, [1, 1, 1]);
      stack1(d).inverterTypeId = 'hybrid-3k-1ph';
    },
    state: 'over',
    says: 'does not allow',
  },
  {
    name: 'three lines on a single-phase supply',
    edit: (d) => void (stack1(d).arrangement = 'three-phase-native'),
    state: 'over',
    says: 'single-phase',
  },
  {
    name: 'two units called one',
    edit: (d) => void stack1(d).units.push({ id: 'u2' }),
    state: 'over',
    says: '2 are listed',
  },
  {
    name: '230 V units on a 120 V site',
    edit: (d) => void (d.site.lineVoltageV = 120),
    state: 'over',
    says: 'makes 230 V line to neutral and the site has 120 V',
  },
  {
    name: '230 V units on 240 V are meant for it',
    edit: (d) => void (d.site.lineVoltageV = 240),
    state: 'within',
  },
  {
    name: 'not chosen',
    edit: (d) => forget(stack1(d), 'arrangement'),
    state: 'unknown',
    missing: 'stacks/s/arrangement',
  },
  {
    name: 'two lines of 120 V units make a split-phase set',
    edit: (d) => {
      Object.assign(d.site, { supply: 'split-phase', lineVoltageV: 120, frequencyHz: 60 });
      Object.assign(stack1(d), {
        inverterTypeId: 'hybrid-3k5-120v',
        arrangement: 'split-phase-from-single',
        units: [
          { id: 'a', line: 'L1' },
          { id: 'b', line: 'L2' },
        ],
      });
    },
    state: 'within',
  },
  {
    name: 'one of them does not',
    edit: (d) => {
      Object.assign(d.site, { supply: 'split-phase', lineVoltageV: 120, frequencyHz: 60 });
      Object.assign(stack1(d), {
        inverterTypeId: 'hybrid-3k5-120v',
        arrangement: 'split-phase-from-single',
        units: [{ id: 'a', line: 'L1' }],
      });
    },
    state: 'over',
    says: 'two lines need at least two units, but 1 are listed',
  },
  {
    name: 'an autotransformer without a thermal sensor',
    edit: (d) => {
      Object.assign(d.site, { supply: 'split-phase', lineVoltageV: 120 });
      d.types.push(variantOf('autotransformer', 'auto-120-240-40a', { id: 'own', thermalSensor: 'no' }));
      Object.assign(stack1(d), {
        inverterTypeId: 'hybrid-11k-240-hv',
        arrangement: 'split-phase-autotransformer',
        autotransformerTypeId: 'own',
      });
    },
    state: 'over',
    says: 'its autotransformer has no thermal sensor',
  },
]);
