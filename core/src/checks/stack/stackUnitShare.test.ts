import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { withAcLeads } from '../../testkit/wired.ts';
import { circuit1, heater, stack1 } from '../../testkit/designs.ts';
import { stackUnitShare } from './stackUnitShare.ts';

checkTable(stackUnitShare, [
  { name: 'one unit', state: 'nothing' },
  {
    name: 'equal leads halve the load: 2300 / 2 of 5000',
    edit: (d) => withAcLeads(d, 4, 4),
    state: 'within',
    value: 1150,
    limit: 5000,
  },
  {
    name: 'leads of 1 and 4 m carry 4/5 and 1/5: 9200 · 0.8 = 7360 of 5000',
    edit: (d) => {
      withAcLeads(d, 1, 4);
      circuit1(d).items = [heater('i1', { quantity: 4 })];
    },
    state: 'over',
    value: 7360,
    limit: 5000,
    says: 'unit 1',
  },
  {
    name: 'a lead of no length beside one of some takes all',
    edit: (d) => withAcLeads(d, 0, 4),
    state: 'within',
    value: 2300,
  },
  {
    name: 'an output that gives way by 10 mΩ evens it out: g = 1/(10 + r), r = 2.14 and 8.54 mΩ',
    edit: (d) => {
      // 10 mm² class 5: 1.91 Ω/km · 1.1179 at 50 °C = 2.135 mΩ/m; p = 18.54 / (12.135 + 18.54) = 0.6044 → 1390 VA.
      withAcLeads(d, 1, 4);
      const own = SAMPLE_TYPES.find((type) => type.id === 'hybrid-5k-1ph');
      if (own?.kind === 'inverter') d.types.push({ ...own, outputMilliohm: 10 });
    },
    state: 'within',
    value: 1390.1,
  },
  {
    name: 'behind an autotransformer a line may have more than half: 2 · 2 units · 5.5 kVA shifted by 120 · 40 / 2',
    edit: (d) => {
      // 40 °C: 1.0. Half the set 11000 VA / 1.05 = 10476, with 2400 shifted 12876; per unit 12876 · 1.05 / 2 = 6760.
      withAcLeads(d, 3, 3);
      Object.assign(stack1(d), {
        inverterTypeId: 'hybrid-11k-240-hv',
        arrangement: 'split-phase-autotransformer',
        autotransformerTypeId: 'auto-120-240-40a',
      });
      Object.assign(d.site, { supply: 'split-phase', lineVoltageV: 120 });
    },
    state: 'within',
    value: 1150,
    limit: 6760,
  },
  {
    name: 'leads not known',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units = [{ id: 'u1' }, { id: 'u2' }];
    },
    state: 'unknown',
    missing: 'stacks/s/units/u1/acLead',
  },
]);
