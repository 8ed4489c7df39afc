import { checkTable } from '../../testkit/checkTable.ts';
import type { Design } from '../../design/schema.ts';
import { bank1, forget, item1, stack1 } from '../../testkit/designs.ts';
import { overrideLead } from '../../testkit/wired.ts';
import { bankConductors } from './bankConductors.ts';

/** 2.3 kW / 0.94 from one bank: 2446.8 W, at its lowest voltage of 44.8 V 54.6 A in all, a quarter 13.65 A. */
checkTable(bankConductors, [
  {
    name: 'equal leads on bars: the first of four carries 1.01 times a quarter of 54.6 A',
    subject: 's module-lead',
    state: 'within',
    value: 13.79,
  },
  {
    name: 'module leads of 1.5 mm² at 61 A pass no more: 19.5 A is what they may carry',
    subject: 's module-lead',
    edit: (d) => {
      item1(d).runningW = 4600;
      bank1(d).modules = [{ id: 'm1' }, { id: 'm2' }];
      bank1(d).lead = { lengthM: 1, areaMm2: 1.5 };
    },
    state: 'over',
    limit: 19.5,
    says: 'lead of module 1 carries',
  },
  {
    name: 'what a licensed person has put in place of the table holds for module leads of 50 mm²',
    subject: 's module-lead',
    edit: (d) => overrideLead(d, 50, 13),
    state: 'over',
    value: 13.79,
    limit: 13,
  },
  {
    name: 'a chain: the lead from the first to the second carries what three modules give',
    subject: 's link',
    edit: (d) => void (bank1(d).joining = 'chain-same-end'),
    state: 'within',
    says: 'lead from module 1 to module 2',
  },
  {
    name: 'a device of a module: 32 A',
    subject: 's device',
    edit: (d) => {
      item1(d).runningW = 4600;
      d.devices.push({ id: 'f1', role: 'battery-module', stackId: 's', moduleId: 'm1', ratedA: 16 });
    },
    state: 'over',
    limit: 16,
    says: 'device of module 1',
  },
  {
    name: 'a device of a module whose rating is not known',
    subject: 's device',
    edit: (d) =>
      void d.devices.push({ id: 'f1', role: 'battery-module', stackId: 's', moduleId: 'm1', fitted: 'yes' }),
    state: 'unknown',
    missing: 'devices/f1/ratedA',
  },
  {
    name: 'a thin lead of one group carries what its group gives',
    subject: 's group-lead',
    edit: (d) => {
      const bank = bank1(d);
      Object.assign(bank, { joining: 'groups-on-bar', groupSize: 2, groupLead: { lengthM: 1, areaMm2: 50 } });
      bank.groups = [{ id: 'g2', number: 2, lead: { lengthM: 1, areaMm2: 1.5 } }];
      item1(d).runningW = 4900;
      bank.modules.forEach((module) => (module.resistanceFactor = 4));
    },
    state: 'over',
    limit: 19.5,
    says: 'lead of group 2',
  },
  { name: 'no battery', edit: (d) => void (stack1(d).bank = 'none'), state: 'nothing' },
  // 54.6 A at the lowest voltage, 50 A while charging.
  ...[
    { name: '63 A', ratedA: 63, chargeA: 50, state: 'within' as const, value: 54.6 },
    { name: '50 A', ratedA: 50, chargeA: 50, state: 'over' as const, value: 54.6 },
    { name: '63 A, charged with 80 A', ratedA: 63, chargeA: 80, state: 'over' as const, value: 80 },
  ].map(({ name, ratedA, chargeA, state, value }) => ({
    name: `the device of an inverter, ${name}`,
    subject: 's unit-device',
    edit: (d: Design) => {
      stack1(d).chargeCurrentA = chargeA;
      d.devices.push({ id: 'f1', role: 'battery-unit', stackId: 's', unitId: 'u1', ratedA });
    },
    state,
    value,
    limit: ratedA,
  })),
  {
    name: 'the device of an inverter whose charge setting nobody has stated',
    subject: 's unit-device',
    edit: (d) => {
      forget(stack1(d), 'chargeCurrentA');
      d.devices.push({ id: 'f1', role: 'battery-unit', stackId: 's', unitId: 'u1', ratedA: 63 });
    },
    state: 'unknown',
    missing: 'stacks/s/chargeCurrentA',
  },
]);
