import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1, forget, threePhase } from '../../testkit/designs.ts';
import type { Design } from '../../design/schema.ts';
import { wiringEarthing } from './wiringEarthing.ts';

const SERVICE = 'grid supply to service-board bus';

/** The earthing bar joined by so much, behind a service of so much. */
const bar =
  (areaMm2: number, serviceMm2: number, more: (d: Design) => void = () => undefined) =>
  (d: Design) => {
    d.earthPoints = [{ id: 'e', name: 'Bar', joins: ['grid-earth', 'chassis'], areaMm2 }];
    d.wiring = { cables: [{ id: 'k1', lineId: SERVICE, areaMm2: serviceMm2 }] };
    more(d);
  };

/** The circuit behind C16 and 20 m of 2.5 mm², its earth in another size. */
const earthOfCircuit =
  (protectiveMm2: number, more: (d: Design) => void = () => undefined) =>
  (d: Design) => {
    circuit1(d).device = { ratedA: 16, curve: 'C' };
    circuit1(d).cable = { lengthM: 20, areaMm2: 2.5 };
    d.site.prospectiveFaultA = 6000;
    d.site.earthing = 'TN-S';
    d.wiring = { cables: [{ id: 'k1', lineId: 'circuit c1', protectiveMm2 }] };
    more(d);
  };

checkTable(wiringEarthing, [
  // Table 54.2: 35 mm² of service want 16 mm², 70 mm² want 35.
  { name: '16 mm² by 35 mm²', edit: bar(16, 35), state: 'within', value: 16, limit: 16 },
  { name: '16 mm² by 70 mm²', edit: bar(16, 70), state: 'over', value: 35, limit: 16, says: '35 mm²' },
  // Below 6 mm² no earthing conductor goes, however thin the service is.
  { name: '4 mm² by 4 mm²', edit: bar(4, 4), state: 'over', value: 6, limit: 4 },
  // Table 250.66: 4/0 AWG (107 mm²) wants 2 AWG (33.6 mm²); 6 AWG is 13.3 mm².
  {
    name: '6 AWG by 4/0 AWG',
    edit: bar(13.3, 107, (d) => (d.site.codeProfile = 'north-american')),
    state: 'over',
    value: 33.6,
    limit: 13.3,
  },
  {
    name: '2 AWG by 4/0 AWG',
    edit: bar(33.6, 107, (d) => (d.site.codeProfile = 'north-american')),
    state: 'within',
  },
  {
    name: 'a service of no stated size',
    edit: (d) => {
      bar(4, 4)(d);
      delete d.wiring;
    },
    state: 'nothing',
  },
  { name: '2.5 mm² with 2.5 mm²', edit: earthOfCircuit(2.5), state: 'within', value: 2.5 },
  // Grid: 230 / 6000 = 38.3 mΩ, 2 · 20 m · 7.41 mΩ/m · 324.5 / 254.5 = 377.9 mΩ: 552.6 A, above 10 · 16 A, so it opens in 20 ms.
  // At most, where the supply is all reactance, at the 70 °C that k = 115 holds from (354.6 mΩ): 230 / √(38.3² + 354.6²) mΩ = 644.8 A,
  // √(644.8² · 0.02) / 115 = 0.793 mm².
  // A cold cable asks no more: 230 / √(38.3² + 296.4²) mΩ = 769.5 A, and from 20 °C k is 226 · √ln(394.5 / 254.5) = 149.6: 0.727 mm².
  // Island: 5000 · 2.5 / 230 = 54 A for 100 ms, 0.15 mm². The grid asks more.
  { name: '1.5 mm² stands its faults', edit: earthOfCircuit(1.5), state: 'within', value: 0.793, limit: 1.5 },
  {
    // Three lines bolted together drive 230 / √(38.3² + 177.3²) mΩ = 1268 A, and none of it through the earth.
    name: 'in a cable of three lines the fault to earth counts',
    edit: earthOfCircuit(1.5, (d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = ['L1', 'L2', 'L3'];
    }),
    state: 'within',
    value: 0.793,
    limit: 1.5,
  },
  { name: '0.5 mm² does not', edit: earthOfCircuit(0.5), state: 'over', value: 0.793, limit: 0.5 },
  {
    name: 'what one source drives is known, and of the grid it is not: the table counts',
    edit: earthOfCircuit(1.5, (d) => forget(d.site, 'prospectiveFaultA')),
    state: 'over',
    value: 2.5,
    says: 'is not known',
  },
  {
    name: 'in North American practice the table alone counts',
    edit: earthOfCircuit(1, (d) => (d.site.codeProfile = 'north-american')),
    state: 'over',
    limit: 1,
  },
  {
    name: 'a thin earth whose faults nobody knows fails by the table',
    edit: earthOfCircuit(1.5, (d) => forget(circuit1(d), 'device')),
    state: 'over',
    value: 2.5,
  },
  { name: 'no size stated', state: 'nothing' },
]);
