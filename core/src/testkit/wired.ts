import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { ProtectiveDeviceType } from '../catalogue/partTypes.ts';
import type { GeneratorType } from '../catalogue/sourceTypes.ts';
import type { Design, Device, PvArray } from '../design/schema.ts';
import type { LinkAsWired } from '../design/wiringSchema.ts';
import { bank1, stack1 } from './designs.ts';

/** A cable of the parallel bus of the base design's type, in its right sockets. */
export const busLink = (id: string, fromUnitId: string, toUnitId: string) => ({
  id,
  fromUnitId,
  fromPort: 'P-OUT',
  toUnitId,
  toPort: 'P-IN',
});

/** Three units in parallel on one line, joined as a line from port to port and terminated at both ends. */
export function threeOnABus(design: Design): void {
  const stack = stack1(design);
  stack.arrangement = 'parallel-single-phase';
  stack.units = ['u1', 'u2', 'u3'].map((id, index) => ({ id, firmware: '1', barPlace: index + 1 }));
  stack.busLinks = [busLink('a', 'u1', 'u2'), busLink('b', 'u2', 'u3')];
  stack.terminated = ['u1', 'u3'];
}

/** Paralleled units on one line, with AC leads of 10 mm² as long as stated. */
export function withAcLeads(design: Design, ...lengthsM: readonly number[]): void {
  const stack = stack1(design);
  stack.arrangement = 'parallel-single-phase';
  stack.units = lengthsM.map((lengthM, index) => ({ id: `u${index + 1}`, acLead: { lengthM, areaMm2: 10 } }));
}

/** The four modules of the base on a closed loop, in order, addressed from 1. */
export function closedLoop(design: Design): void {
  const bank = bank1(design);
  bank.modules.forEach((module, index) => (module.address = index + 1));
  bank.comms = {
    loop: 'closed',
    protocol: 'bus-a',
    links: [
      { id: 'l1', from: 'host', fromPort: 'BAT', to: 'm1', toPort: 'UP' },
      ...[1, 2, 3].map((at) => ({
        id: `l${at + 1}`,
        from: `m${at}`,
        fromPort: 'DOWN',
        to: `m${at + 1}`,
        toPort: 'UP',
      })),
    ],
  };
}

/**
 * A string of 430 W modules (38.8 V, 32.4 V, 14.1 A) on input 1 of the 5 kVA unit (500 V, 120 to 430 V, 18 A), between −20 °C and
 * 35 °C.
 */
export function withStrings(design: Design, count: number, over: Partial<PvArray> = {}): void {
  design.site.lowestC = -20;
  design.site.highestC = 35;
  design.arrays.push({
    id: 'a',
    name: 'South roof',
    coupling: 'dc',
    moduleTypeId: 'pv-430w',
    modulesPerString: count,
    directionDeg: 180,
    tiltDeg: 30,
    places: [{ id: 'p', stackId: 's', unitId: 'u1', input: 1, strings: 1 }],
    ...over,
  });
}

/** A controller over the set, with three meters of one bus: grid, load and generation. */
export function withMeters(design: Design): Design['controllers'][number] {
  const made: Design['controllers'][number] = {
    id: 'c',
    name: 'Controller',
    typeId: 'site-controller-6',
    stackIds: ['s'],
    meters: (['grid', 'load', 'generation'] as const).map((role, index) => ({
      id: `m${index + 1}`,
      role,
      typeId: 'meter-3ph-sensors',
      address: index + 1,
    })),
  };
  design.controllers.push(made);
  return made;
}

/** What a lead of a size carries in this job, in place of the table: clipped direct, PVC, two loaded conductors. */
export function overrideLead(design: Design, areaMm2: number, value: number): void {
  design.tableValues = [
    {
      id: 'v',
      table: 'ampacity',
      insulation: 'PVC70',
      method: 'C',
      loadedConductors: 2,
      areaMm2,
      value,
      reason: 'as its maker states',
      by: 'Robin',
      at: '2026-03-01T10:00:00.000Z',
    },
  ];
}

/** What is said of the cable of a link. */
export function wireLink(design: Design, linkId: string, said: Omit<LinkAsWired, 'id' | 'linkId'>): void {
  design.wiring = { ...design.wiring, links: [{ id: 'k', linkId, ...said }] };
}

/** A generator on its own port, feeding the stack. */
export function withSet(design: Design, typeId = 'petrol-4k-1ph', line?: 'L1' | 'L2' | 'L3'): void {
  design.generators.push({
    id: 'g1',
    name: 'Set',
    typeId,
    connection: 'generator-port',
    stackId: 's',
    ...(line === undefined ? {} : { line }),
  });
}

/** A generator ahead of the grid port, of a type like the petrol set with other figures. */
export function withRated(design: Design, figures: Partial<GeneratorType>): void {
  const petrol = SAMPLE_TYPES.find((type) => type.id === 'petrol-4k-1ph');
  if (petrol?.kind !== 'generator') throw new Error('The samples have a petrol set.');
  const type: GeneratorType = { ...petrol, id: 'own-set', ...figures };
  // An undefined figure is one that nobody stated.
  design.types.push(JSON.parse(JSON.stringify(type)) as GeneratorType);
  withSet(design, 'own-set');
  Object.assign(design.generators.at(-1) ?? {}, { connection: 'transfer-switch' });
}

/** A device type like a sample with other figures; its id is "own". */
export function ownDevice(design: Design, likeId: string, figures: Partial<ProtectiveDeviceType>): void {
  const found = SAMPLE_TYPES.find((type) => type.id === likeId);
  if (found?.kind !== 'protective-device') throw new Error(`There is no sample device "${likeId}".`);
  design.types.push({ ...found, id: 'own', name: 'Own device', ...figures });
}

/** The battery device of the base design as one of a type like the 125 A breaker with other figures. */
export const batteryDevice =
  (figures: Partial<ProtectiveDeviceType>) =>
  (design: Design): void => {
    ownDevice(design, 'dc-breaker-125a', figures);
    bank1(design).breakerTypeId = 'own';
  };

/** Lists a device at a place of the base design, there and of a rating or a type. */
export function place(design: Design, role: Device['role'], of: Partial<Device>): void {
  design.devices.push({ id: `d${design.devices.length + 1}`, role, fitted: 'yes', ...of });
}
