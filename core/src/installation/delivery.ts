import type { EquipmentType } from '../catalogue/schema.ts';
import { resolveDefaults } from '../codes/defaults.ts';
import type { DeliveryTrouble } from './installation.ts';
import { isOwnBank } from './ownBank.ts';
import type { Design, Stack } from '../design/schema.ts';
import { counted } from '../words/quantity.ts';

export type DeliveryGroup = 'boxes' | 'tools' | 'protection' | 'people';

/** One line of the delivery and preparation lists. Its id stays the same as long as the thing it stands for is in the design. */
export interface DeliveryLine {
  readonly id: string;
  readonly group: DeliveryGroup;
  readonly what: string;
  readonly details: readonly string[];
}

/** Mass above which two people are not enough without an aid, kg: two times what two should share, by the usual guidance. */
const AID_KG = 50;

function liftLine(massKg: number | undefined, oneKg: number): string {
  if (massKg === undefined) return 'Mass not known: look at the label before lifting';
  if (massKg > AID_KG) return `${massKg} kg: lifting aid and two people`;
  return massKg > oneKg ? `${massKg} kg: two people lift` : `${massKg} kg: one person lifts`;
}

function boxesOf(
  stack: Stack,
  find: (id: string | undefined) => EquipmentType | undefined,
  oneKg: number,
): DeliveryLine[] {
  const inverter = find(stack.inverterTypeId);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  const battery = find(bank?.batteryTypeId);
  const transformer = find(stack.autotransformerTypeId);
  const massOf = (type: EquipmentType | undefined): number | undefined =>
    type?.kind === 'inverter' || type?.kind === 'battery' ? type.massKg : undefined;
  const lines: DeliveryLine[] = stack.units.map((unit, index) => {
    const own = unit.inverterTypeId === undefined ? inverter : find(unit.inverterTypeId);
    return {
      id: `unit-${stack.id}-${unit.id}`,
      group: 'boxes',
      what: `${own?.name ?? 'Inverter, type not known'}: unit ${index + 1} of ${stack.name}`,
      details: [...(own?.inTheBox ?? []), liftLine(massOf(own), oneKg)],
    };
  });
  if (stack.units.length > 1)
    lines.push({
      id: `parallel-${stack.id}`,
      group: 'boxes',
      what: `Parallel cables for ${stack.name}`,
      details: [
        `${counted(stack.units.length - 1, 'link')}, as supplied by the maker, with both end terminators`,
      ],
    });
  const owners = isOwnBank(stack) ? stack.units : [undefined];
  owners.forEach((unit, at) =>
    (bank?.modules ?? []).forEach((module, index) => {
      const own = module.batteryTypeId === undefined ? battery : find(module.batteryTypeId);
      lines.push({
        id: `module-${stack.id}-${unit === undefined || at === 0 ? '' : `${unit.id}-`}${module.id}`,
        group: 'boxes',
        what: `${own?.name ?? 'Battery module, type not known'}: module ${index + 1} of ${unit === undefined ? stack.name : `unit ${at + 1} of ${stack.name}`}`,
        details: [
          ...(own?.inTheBox ?? []),
          liftLine(massOf(own), oneKg),
          'Undamaged, dry, no swelling; resting voltage noted',
        ],
      });
    }),
  );
  if (transformer !== undefined)
    lines.push({
      id: `autotransformer-${stack.id}`,
      group: 'boxes',
      what: `${transformer.name} of ${stack.name}`,
      details: [...(transformer.inTheBox ?? [])],
    });
  return lines;
}

const TOOLS: readonly (readonly [id: string, what: string, detail: string])[] = [
  ['torque', 'Torque screwdriver and wrench', 'In calibration, for the ranges on the terminals'],
  ['crimp', 'Crimping tool with dies for every lug size', 'Try a crimp and pull it'],
  ['tester', 'Voltage tester and proving unit', 'Proven before and after each use'],
  ['insulation', 'Insulation and continuity tester', 'In calibration'],
  ['clamp', 'Clamp meter for AC and DC, true RMS', 'Range above the battery current'],
  ['drill', 'Drill, bits and fixings for this wall', 'Pipe and cable finder first'],
  ['level', 'Spirit level and marking tools', 'Or the printed template'],
  ['locks', 'Lock-off kit and labels', 'One lock for each person'],
];
const PROTECTION: readonly (readonly [id: string, what: string, detail: string])[] = [
  ['gloves', 'Insulating gloves for the voltage, with leather over-gloves', 'Looked over today'],
  ['eyes', 'Face shield or safety glasses', 'Rated for arcs where the battery is worked on'],
  ['insulated', 'Insulated tools; rings, watches and chains off', 'A battery cannot be switched off inside'],
  ['extinguisher', 'Fire extinguisher suited to the battery, and a clear way out', 'Everybody knows where'],
];

/** What must have arrived, be at hand and be prepared before work starts: worked out from the design. */
export function deliveryLines(design: Design, catalogue: readonly EquipmentType[]): DeliveryLine[] {
  const find = (id: string | undefined): EquipmentType | undefined =>
    id === undefined
      ? undefined
      : (design.types.find((one) => one.id === id) ?? catalogue.find((one) => one.id === id));
  const oneKg = resolveDefaults(design.defaults).liftOneKg.value;
  const boxes = [
    ...design.stacks.flatMap((stack) => boxesOf(stack, find, oneKg)),
    ...design.generators.map((generator): DeliveryLine => ({
      id: `generator-${generator.id}`,
      group: 'boxes',
      what: `${find(generator.typeId)?.name ?? 'Generator, type not known'}: ${generator.name}`,
      details: ['Oil, coolant and fuel checked; exhaust to the open air'],
    })),
  ];
  if (boxes.length === 0) return [];
  const kit = (group: 'tools' | 'protection', list: typeof TOOLS): DeliveryLine[] =>
    list.map(([id, what, detail]) => ({ id: `${group}-${id}`, group, what, details: [detail] }));
  return [
    ...boxes,
    ...kit('tools', TOOLS),
    ...kit('protection', PROTECTION),
    peopleLine(design, find, oneKg),
  ];
}

function peopleLine(
  design: Design,
  find: (id: string | undefined) => EquipmentType | undefined,
  oneKg: number,
): DeliveryLine {
  const types = design.stacks.flatMap((stack) => {
    const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
    return [
      ...stack.units.map((unit) => find(unit.inverterTypeId ?? stack.inverterTypeId)),
      ...(bank?.modules ?? []).map((module) => find(module.batteryTypeId ?? bank?.batteryTypeId)),
    ];
  });
  const masses = types.flatMap((type) =>
    (type?.kind === 'inverter' || type?.kind === 'battery') && type.massKg !== undefined ? [type.massKg] : [],
  );
  const heaviest = masses.length === 0 ? undefined : Math.max(...masses);
  return {
    id: 'people-lift',
    group: 'people',
    what:
      heaviest !== undefined && heaviest <= oneKg
        ? 'One person can lift everything'
        : 'Two people for the lift',
    details: [
      heaviest === undefined ? 'No mass is known' : `Heaviest part: ${heaviest} kg`,
      'Nobody works live alone',
    ],
  };
}

/** Lines of the list that were ticked as damaged or missing, with what they stand for. */
export function deliveryTrouble(design: Design, catalogue: readonly EquipmentType[]): DeliveryTrouble[] {
  const ticks = design.delivery.flatMap(({ id, state, note }) =>
    state === 'damaged' || state === 'missing' ? [{ id, state, note }] : [],
  );
  if (ticks.length === 0) return [];
  const lines = new Map(deliveryLines(design, catalogue).map(({ id, what }) => [id, what]));
  // A tick whose thing is no longer in the design says nothing any more.
  return ticks.flatMap(({ id, state, note }) => {
    const what = lines.get(id);
    return what === undefined ? [] : [{ id, what, state, note }];
  });
}
