import type { Design } from '../../design/schema.ts';
import type { Splice } from '../../design/wiringSchema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1 } from '../../testkit/designs.ts';
import { wiringSplices } from './wiringSplices.ts';

function splice(design: Design, areaMm2: number, over: Partial<Splice>): void {
  circuit1(design).cable = { lengthM: 10, areaMm2 };
  design.wiring = { splices: [{ id: 'x', lineId: 'circuit c1', kind: 'splice', ...over }] };
}
const BOX = { minMm2: 1.5, maxMm2: 6, enclosure: 'junction box' };

checkTable(wiringSplices, [
  { name: 'no splice', state: 'nothing' },
  { name: '4 mm² in 1.5 to 6 mm²', edit: (d) => splice(d, 4, BOX), state: 'within' },
  {
    name: '10 mm² in 1.5 to 6 mm²',
    edit: (d) => splice(d, 10, BOX),
    state: 'over',
    value: 10,
    limit: 6,
    says: 'takes 1.5 to 6 mm² and the conductor has 10 mm²',
  },
  { name: '1 mm² in 1.5 to 6 mm²', edit: (d) => splice(d, 1, BOX), state: 'over', value: 1, limit: 1.5 },
  {
    name: '10 mm² is too thick for 6 mm² whatever else nobody has said',
    edit: (d) => splice(d, 10, { maxMm2: 6 }),
    state: 'over',
    value: 10,
    limit: 6,
  },
  {
    name: 'a splice in no enclosure',
    edit: (d) => splice(d, 4, { minMm2: 1.5, maxMm2: 6 }),
    state: 'unknown',
    missing: 'wiring/splices/x/enclosure',
  },
  {
    name: 'a lug ends in a terminal and wants none',
    edit: (d) => splice(d, 4, { kind: 'lug', minMm2: 1.5, maxMm2: 6 }),
    state: 'within',
  },
]);
