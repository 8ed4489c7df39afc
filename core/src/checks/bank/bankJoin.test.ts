import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1 } from '../../testkit/designs.ts';
import { bankJoin } from './bankJoin.ts';

const charged =
  (...socs: (number | undefined)[]) =>
  (design: Design): void => {
    const bank = bank1(design);
    bank.modules = socs.map((soc, index) => ({
      id: `m${index + 1}`,
      ...(soc === undefined ? {} : { stateOfCharge: soc }),
    }));
  };

// Each module with its leads on the bars: 12 + 2 · 0.63151 = 13.263 mΩ.
checkTable(bankJoin, [
  { name: 'nobody has stated a charge', state: 'nothing' },
  {
    name: '0.6 and 0.4: (52.7 − 52.4) / 26.526 mΩ = 11.3 A of 50 A',
    edit: charged(0.6, 0.4),
    state: 'within',
    value: 11.3,
    limit: 50,
  },
  {
    name: '1 onto two at 0.4: 2.0 / (13.263 · 1.5 mΩ) = 100.5 A of 50 A, less what the bar takes',
    edit: charged(1, 0.4, 0.4),
    state: 'over',
    value: 100.3,
    says: 'closing module 1 onto the 2 modules joined before it',
  },
  {
    // 52.7 − 52.4 = 0.3 V: in a pair 0.3 / 26.526 mΩ = 11.3 A, onto three 0.3 / (13.263 · 4/3 mΩ) = 17.0 A, less what the bar takes.
    name: 'the low one of four is closed onto three, not onto one: 17 A, not 11.3 A',
    edit: charged(0.4, 0.6, 0.6, 0.6),
    state: 'within',
    value: 16.9,
  },
  {
    name: 'one charge is missing',
    edit: charged(1, undefined),
    state: 'unknown',
    missing: 'stacks/s/bank/modules/m2/stateOfCharge',
  },
]);
