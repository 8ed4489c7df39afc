import { checkTable } from '../../testkit/checkTable.ts';
import { withSet } from '../../testkit/wired.ts';
import { bondingGenerator } from './bondingGenerator.ts';

checkTable(bondingGenerator, [
  { name: 'stated', edit: (d) => withSet(d), state: 'nothing' },
  {
    name: 'not stated',
    edit: (d) => void d.generators.push({ id: 'g1', name: 'Set', stackId: 's' }),
    state: 'unknown',
    missing: 'generators/g1/connection',
  },
  {
    name: 'an inlet somewhere',
    edit: (d) => void d.generators.push({ id: 'g1', name: 'Set', stackId: 's', connection: 'inlet' }),
    state: 'unknown',
    missing: 'generators/g1/inletAt',
  },
]);
