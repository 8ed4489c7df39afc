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
    name: '1 and 0.4: 2.0 / 26.526 mΩ = 75.4 A of 50 A',
    edit: charged(1, 0.4, 0.4),
    state: 'over',
    value: 75.4,
    says: 'within 0.1 V of each other first',
  },
  {
    name: 'one charge is missing',
    edit: charged(1, undefined),
    state: 'unknown',
    missing: 'stacks/s/bank/modules/m2/stateOfCharge',
  },
]);
