import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { stack1 } from '../../testkit/designs.ts';
import { stackController } from './stackController.ts';

/** Two AC-coupled sets on one line. */
function twoSets(design: Design): void {
  const first = stack1(design);
  Object.assign(first, { inverterTypeId: 'ac-storage-5k-1ph', arrangement: 'ac-coupled-storage' });
  design.stacks.push({ ...first, id: 's2', name: 'Stack 2' });
}
const meters = (...addresses: readonly number[]): Design['controllers'][number]['meters'] =>
  addresses.map((address, index) => ({
    id: `m${index + 1}`,
    role: (['grid', 'load', 'generation'] as const)[index] ?? 'load',
    typeId: 'meter-3ph-sensors',
    address,
  }));
const controller = (over: Partial<Design['controllers'][number]> = {}) => ({
  id: 'c',
  name: 'Controller',
  typeId: 'site-controller-6',
  stackIds: ['s', 's2'],
  meters: meters(1, 2),
  ...over,
});

checkTable(stackController, [
  { name: 'no such sets', state: 'nothing' },
  { name: 'two sets and nobody who directs them', edit: twoSets, state: 'over', says: 'no controller' },
  {
    name: 'grid and load meter, addresses 1 and 2; no generation, so no meter for it',
    edit: (d) => {
      twoSets(d);
      d.controllers.push(controller());
    },
    state: 'within',
    says: 'looks after 2 sets',
  },
  {
    name: 'one address twice',
    edit: (d) => {
      twoSets(d);
      d.controllers.push(controller({ meters: meters(4, 4) }));
    },
    state: 'over',
    says: 'address 4 is set on more than one meter',
  },
  {
    name: 'the same address on two ports of the controller',
    edit: (d) => {
      twoSets(d);
      const [a, b] = meters(4, 4);
      if (a === undefined || b === undefined) throw new Error('Two are made.');
      d.controllers.push(
        controller({
          meters: [
            { ...a, port: 'M1' },
            { ...b, port: 'M2' },
          ],
        }),
      );
    },
    state: 'within',
  },
  {
    name: 'a meter that is not made for the load side',
    edit: (d) => {
      twoSets(d);
      d.controllers.push(
        controller({ meters: meters(1, 2).map((one) => ({ ...one, typeId: 'meter-1ph-direct' })) }),
      );
    },
    state: 'over',
    says: 'is not made for the load side',
  },
  {
    name: 'with a roof it needs a generation meter',
    edit: (d) => {
      twoSets(d);
      d.controllers.push(controller());
      d.arrays.push({ id: 'a', name: 'Roof', coupling: 'ac' });
    },
    state: 'over',
    says: 'it needs a generation meter',
  },
  {
    name: 'an address not set',
    edit: (d) => {
      twoSets(d);
      d.controllers.push(controller({ meters: [{ id: 'm1', role: 'grid' }] }));
    },
    state: 'unknown',
    missing: 'controllers/c/meters/m1/address',
  },
]);
