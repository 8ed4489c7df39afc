import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { circuit1, stack1 } from '../../testkit/designs.ts';
import { ownDevice, place } from '../../testkit/wired.ts';
import { wiringOrder } from './wiringOrder.ts';

const output = (design: Design, ratedA: number, unitId = 'u1'): void =>
  place(design, 'unit-output', { stackId: 's', unitId, ratedA });

/** A main of a type that opens on too much current, of a curve. */
function boardMain(design: Design, ratedA: number, curve: 'B' | 'C' | 'D'): void {
  ownDevice(design, 'dc-breaker-125a', { device: 'circuit-breaker', ratedV: 400, ratedA, curve });
  place(design, 'board-main', { partitionId: 'b', typeId: 'own' });
}

checkTable(wiringOrder, [
  {
    name: 'a circuit of 40 A behind an output device of 32 A',
    edit: (d) => {
      output(d, 32);
      circuit1(d).device = { ratedA: 40 };
    },
    state: 'over',
    value: 40,
    limit: 32,
    says: 'output device of unit 1 above it is rated',
  },
  {
    name: 'equal ratings: either may open first',
    edit: (d) => {
      output(d, 32);
      circuit1(d).device = { ratedA: 32 };
    },
    state: 'tight',
  },
  {
    name: '16 A behind 32 A',
    edit: (d) => {
      output(d, 32);
      circuit1(d).device = { ratedA: 16 };
    },
    state: 'within',
  },
  {
    name: 'output devices of units in parallel count together: 40 A behind 2 × 32 A = 64 A',
    edit: (d) => {
      stack1(d).arrangement = 'parallel-single-phase';
      stack1(d).units.push({ id: 'u2', firmware: '1', barPlace: 2 });
      output(d, 32);
      output(d, 32, 'u2');
      circuit1(d).device = { ratedA: 40 };
    },
    state: 'within',
    limit: 64,
  },
  {
    name: 'a C 16 below a B 40: certain from 160 A, the one above may open from 120 A on',
    edit: (d) => {
      boardMain(d, 40, 'B');
      circuit1(d).device = { ratedA: 16, curve: 'C' };
    },
    state: 'tight',
    value: 160,
    limit: 120,
  },
  {
    name: 'a C 16 below a C 40: no quicker curve above',
    edit: (d) => {
      boardMain(d, 40, 'C');
      circuit1(d).device = { ratedA: 16, curve: 'C' };
    },
    state: 'within',
  },
  {
    name: 'a main of no type may be a switch: the output devices stand next above',
    edit: (d) => {
      place(d, 'board-main', { partitionId: 'b', ratedA: 25 });
      circuit1(d).device = { ratedA: 32 };
    },
    state: 'nothing',
  },
  {
    name: 'on the grid side the service stands above: 80 A behind 63 A',
    edit: (d) => {
      circuit1(d).partitionId = 'g';
      circuit1(d).device = { ratedA: 80 };
    },
    state: 'over',
    value: 80,
    limit: 63,
  },
  {
    name: 'the grid device of a unit above the service',
    edit: (d) => place(d, 'unit-grid', { stackId: 's', unitId: 'u1', ratedA: 80 }),
    state: 'over',
    value: 80,
    limit: 63,
  },
]);
