import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, stack1 } from '../../testkit/designs.ts';
import { bankSeries } from './bankSeries.ts';

/** A stack of modules of 102.4 V (89.6 to 115.2 V) on a window of 300 to 500 V: 300 / 89.6 = 3.35 → 4; 500 / 115.2 = 4.34 → 4. */
function stacked(design: Design, count: number): void {
  stack1(design).inverterTypeId = 'hybrid-11k-240-hv';
  const bank = bank1(design);
  bank.batteryTypeId = 'lfp-102v-50ah-stack';
  bank.modules = Array.from({ length: count }, (_, at) => ({ id: `m${at + 1}` }));
}

checkTable(bankSeries, [
  { name: 'modules in parallel', state: 'nothing' },
  { name: 'four fit', edit: (d) => stacked(d, 4), state: 'within', says: '4 to 4 fit' },
  { name: 'three do not', edit: (d) => stacked(d, 3), state: 'over', says: '3 in series, where 4 fit' },
  { name: 'five do not', edit: (d) => stacked(d, 5), state: 'over', says: '5 in series, where 4 fit' },
]);
