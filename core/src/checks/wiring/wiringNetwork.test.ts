import { expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Circuit, Design } from '../../design/schema.ts';
import { variantOf } from '../../testkit/bonding.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { baseDesign, stack1 } from '../../testkit/designs.ts';
import { withMeters, wireLink } from '../../testkit/wired.ts';
import { analyse } from '../analyse.ts';
import { analysisCauses } from '../causes.ts';
import { mendsOf } from '../../advise/mends/mendsOf.ts';
import { wiringBusCable } from './wiringBusCable.ts';
import { wiringNetwork } from './wiringNetwork.ts';

type Way = 'cable' | 'radio' | 'none';

/** Unit 1 joined in a way, its type taking one, with a router on the backed-up circuit. */
const join =
  (way: Way, takes?: Way | 'either', router: Partial<Circuit> | null = {}) =>
  (design: Design): void => {
    const type = variantOf('inverter', 'hybrid-5k-1ph', { networkBy: takes });
    design.types.push(type);
    const [unit] = stack1(design).units;
    Object.assign(unit ?? {}, { network: way });
    stack1(design).inverterTypeId = type.id;
    if (router !== null) Object.assign(design.circuits[0] ?? {}, { feedsRouter: 'yes' }, router);
  };

const onGrid = (design: Design): void => {
  design.partitions.push({ id: 'gp', name: 'Grid side', kind: 'grid' });
  join('cable', 'either', { partitionId: 'gp' })(design);
};

checkTable(wiringNetwork, [
  { name: 'nobody has said anything of it', state: 'nothing' },
  { name: 'left off on purpose', edit: join('none', 'either'), state: 'nothing' },
  { name: 'by cable, its type takes either', edit: join('cable', 'either'), state: 'within' },
  { name: 'by radio, its type takes radio', edit: join('radio', 'radio'), state: 'within' },
  {
    name: 'by cable, its type takes radio',
    edit: join('cable', 'radio'),
    state: 'over',
    says: 'joined by cable, where its type is joined by radio',
  },
  {
    name: 'by radio, its type takes nothing',
    edit: join('radio', 'none'),
    state: 'over',
    says: 'joined by radio, where its type is joined by nothing',
  },
  {
    name: 'a type that does not say',
    edit: join('cable'),
    state: 'unknown',
    missing: 'types/hybrid-5k-1ph-own/networkBy',
  },
  {
    name: 'a router of which nobody knows where it hangs',
    edit: join('cable', 'either', null),
    subject: 'building-network',
    state: 'unknown',
    missing: 'router',
  },
  {
    name: 'a router that is dark in an outage',
    edit: onGrid,
    state: 'tight',
    says: 'Grid side is dark while the grid is away, and nothing reports then',
  },
  {
    name: 'a router on a circuit without a board',
    edit: (d) => {
      join('cable', 'either')(d);
      delete d.circuits[0]?.partitionId;
    },
    state: 'unknown',
    missing: 'circuits/c1/partitionId',
  },
  {
    name: 'a controller whose type takes cable alone',
    edit: (d) => {
      withMeters(d).network = 'radio';
      Object.assign(d.circuits[0] ?? {}, { feedsRouter: 'yes' });
    },
    state: 'over',
    says: 'where its type is joined by cable',
  },
]);

const cabled = (said: Parameters<typeof wireLink>[2]) => (design: Design) => {
  join('cable', 'either')(design);
  wireLink(design, 'network unit s/u1', said);
};
// ISO/IEC 11801: 90 m laid and 10 m of patch cords; 95 of 100 m leaves 5 %.
checkTable(wiringBusCable, [
  { name: 'a network cable of 60 m', edit: cabled({ lengthM: 60 }), state: 'within', value: 60, limit: 100 },
  { name: 'of 95 m', edit: cabled({ lengthM: 95 }), state: 'tight' },
  { name: 'of 101 m', edit: cabled({ lengthM: 101 }), state: 'over' },
  { name: 'of one pair', edit: cabled({ cable: 'pair' }), state: 'over', says: 'all pairs' },
  {
    name: 'a length that was said before it went by radio',
    edit: (d) => {
      cabled({ lengthM: 101 })(d);
      Object.assign(stack1(d).units[0] ?? {}, { network: 'radio' });
    },
    state: 'nothing',
  },
]);

it.each([
  { name: 'the way that its type has', edit: join('cable', 'radio'), mend: 'join-as-taken' },
  { name: 'the router carried through', edit: onGrid, mend: 'onto-backup' },
])('is mended by $name', ({ edit, mend }) => {
  const design = baseDesign();
  edit(design);
  const analysis = analyse(design, SAMPLE_TYPES);
  const cause = analysisCauses(analysis).find(({ worst }) => worst.check === wiringNetwork.id);
  const found = cause === undefined ? [] : mendsOf(cause, analysis, SAMPLE_TYPES);
  expect(found.map(({ id }) => id)).toContain(mend);
});
