import type { EquipmentType } from '../catalogue/schema.ts';
import { CHECKS } from '../checks/registry.ts';
import { findingsOf } from '../checks/runChecks.ts';
import { diff, type Edit } from '../design/edits.ts';
import type { Design, Generator, Partition, Stack } from '../design/schema.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import { compile } from '../installation/compile.ts';
import { modesOf } from '../modes/modes.ts';

/** A change that leaves fewer faults of bonding, back-feed, interlock and joined sources. */
export interface BondingMend {
  readonly id: string;
  readonly label: string;
  readonly edits: readonly Edit[];
  /** Findings over and not known, of bonding alone, before and after. */
  readonly before: { readonly over: number; readonly unknown: number };
  readonly after: { readonly over: number; readonly unknown: number };
}

const BONDING = CHECKS.filter((check) => check.family === 'bonding');

function countOf(design: Design, catalogue: readonly EquipmentType[]): BondingMend['before'] {
  const installation = compile(design, catalogue);
  const findings = modesOf(installation)
    .filter((mode) => mode.kind !== 'unit-lost')
    .flatMap((mode) => BONDING.flatMap((check) => findingsOf(check, { installation, mode })));
  return {
    over: findings.filter(({ state }) => state === 'over').length,
    unknown: findings.filter(({ state }) => state === 'unknown').length,
  };
}

interface Change {
  readonly id: string;
  readonly label: string;
  readonly make: (design: Design) => Design;
}

const inStack =
  (id: string, change: (stack: Stack) => Stack) =>
  (design: Design): Design => ({
    ...design,
    stacks: design.stacks.map((one) => (one.id === id ? change(one) : one)),
  });
const inGenerator =
  (id: string, change: (one: Generator) => Generator) =>
  (design: Design): Design => ({
    ...design,
    generators: design.generators.map((one) => (one.id === id ? change(one) : one)),
  });
const inPartition =
  (id: string, change: (one: Partition) => Partition) =>
  (design: Design): Design => ({
    ...design,
    partitions: design.partitions.map((one) => (one.id === id ? change(one) : one)),
  });

type TransferType = Extract<EquipmentType, { kind: 'transfer-device' }>;

/** Transfer devices that could stand where one does: interlocked, as many lines and no less current, the other way with the neutral. */
function otherDevices(
  design: Design,
  catalogue: readonly EquipmentType[],
  typeId: string | undefined,
): TransferType[] {
  const all = new Map([...catalogue, ...design.types].map((type) => [type.id, type]));
  const now = typeId === undefined ? undefined : all.get(typeId);
  return [...all.values()].filter(
    (type): type is TransferType =>
      type.kind === 'transfer-device' &&
      type.interlocked === 'yes' &&
      type.id !== typeId &&
      (now?.kind !== 'transfer-device' ||
        (type.lines === now.lines &&
          type.ratedA >= now.ratedA &&
          (type.neutral !== now.neutral || now.interlocked === 'no'))),
  );
}

function stackChanges(design: Design, catalogue: readonly EquipmentType[], stack: Stack): Change[] {
  const relay = (setting: 'on' | 'off'): Change => ({
    id: `relay-${setting}-${stack.id}`,
    label: `Set the neutral–earth relay of ${stack.name} ${setting}`,
    make: inStack(stack.id, (one) => ({
      ...one,
      neutralEarthRelay: setting,
      units: one.units.map(({ neutralEarthRelay: _own, ...unit }) => unit),
    })),
  });
  return [
    relay('on'),
    relay('off'),
    ...(stack.transferDeviceTypeId === undefined
      ? []
      : otherDevices(design, catalogue, stack.transferDeviceTypeId).map((type): Change => ({
          id: `transfer-${stack.id}-${type.id}`,
          label: `Use ${type.name} as its transfer device: it ${type.neutral === 'switched' ? 'switches' : 'does not switch'} the neutral`,
          make: inStack(stack.id, (one) => ({ ...one, transferDeviceTypeId: type.id })),
        }))),
  ];
}

/** Whether the neutral of a generator is bonded: as it is on site, else as its type says. */
function bondOf(
  design: Design,
  catalogue: readonly EquipmentType[],
  { neutralBond, typeId }: Generator,
): 'bonded' | 'floating' | undefined {
  if (neutralBond !== undefined) return neutralBond;
  const type = [...design.types, ...catalogue].find(({ id }) => id === typeId);
  return type?.kind === 'generator' ? type.neutral : undefined;
}

function generatorChanges(
  design: Design,
  catalogue: readonly EquipmentType[],
  generator: Generator,
): Change[] {
  const bond = (neutralBond: 'bonded' | 'floating'): Change => ({
    id: `${neutralBond}-${generator.id}`,
    label:
      neutralBond === 'bonded'
        ? `Bond the neutral of ${generator.name} to its frame, as its manual allows`
        : `Lift the bond of the neutral of ${generator.name}, as its manual allows`,
    make: inGenerator(generator.id, (one) => ({ ...one, neutralBond })),
  });
  // Where it names no switch of its own it comes through the one the set names.
  const named =
    generator.transferDeviceTypeId ??
    design.stacks.find(({ id }) => id === generator.stackId)?.transferDeviceTypeId;
  const behindSwitch = otherDevices(design, catalogue, named).filter(
    ({ lines }) => design.site.supply === undefined || lines === SUPPLY_LINES[design.site.supply].length,
  );
  // A port takes one generator: another one comes in elsewhere.
  const isAlone = !design.generators.some(
    (one) =>
      one.id !== generator.id && one.stackId === generator.stackId && one.connection === 'generator-port',
  );
  return [
    bond('bonded'),
    bond('floating'),
    ...(generator.connection === 'generator-port' && isAlone
      ? []
      : behindSwitch.flatMap((type): Change[] => {
          const isSwitched = type.neutral === 'switched';
          const wanted = isSwitched ? 'bonded' : 'floating';
          const through: Change = {
            id: `switch-${generator.id}-${type.id}`,
            label: `Bring ${generator.name} in through ${type.name}: it ${isSwitched ? 'switches' : 'does not switch'} the neutral`,
            make: inGenerator(generator.id, ({ inletAt: _inlet, ...one }) => ({
              ...one,
              connection: 'transfer-switch',
              transferDeviceTypeId: type.id,
            })),
          };
          if (bondOf(design, catalogue, generator) === wanted) return [through];
          // A switch that parts the neutral wants a bond of its own behind it, one that does not wants none.
          const set = bond(wanted);
          return [
            through,
            {
              id: `${through.id}-${wanted}`,
              label: `${through.label}; ${isSwitched ? 'bond its neutral to its frame' : 'lift the bond of its neutral'}, as its manual allows`,
              make: (before) => set.make(through.make(before)),
            },
          ];
        })),
    ...(generator.connection === 'inlet'
      ? [
          {
            id: `port-${generator.id}`,
            label: `Bring ${generator.name} in by the generator port`,
            make: inGenerator(generator.id, ({ inletAt: _inlet, ...one }) => ({
              ...one,
              connection: 'generator-port',
            })),
          },
        ]
      : []),
  ];
}

/** Changes to site and boards: bypass, interlock, links. */
function siteChanges({ site, partitions }: Design): Change[] {
  const inSite =
    (change: Partial<Design['site']>) =>
    (design: Design): Design => ({
      ...design,
      site: { ...design.site, ...change },
    });
  return [
    ...(site.maintenanceBypass === 'yes' && site.bypassNeutral !== 'switched'
      ? [
          {
            id: 'bypass-switched',
            label: 'Use a bypass switch that opens the neutral',
            make: inSite({ bypassNeutral: 'switched' }),
          },
        ]
      : []),
    ...(site.maintenanceBypass === 'yes' && site.bypassInterlocked === 'no'
      ? [
          {
            id: 'bypass-interlock',
            label: 'Interlock the bypass with the inverter output',
            make: inSite({ bypassInterlocked: 'yes' }),
          },
        ]
      : []),
    ...partitions
      .filter(({ neutralEarthLink }) => neutralEarthLink === 'yes')
      .map((partition): Change => ({
        id: `unlink-${partition.id}`,
        label: `Take the neutral–earth link out of ${partition.name}`,
        make: inPartition(partition.id, (one) => ({ ...one, neutralEarthLink: 'none' })),
      })),
  ];
}

const costOf = (id: string): number => (/^(switch|transfer)-/.test(id) ? 1 : 0);

/** What would mend bonds, interlocks and back-feed, each with what it leaves; best first. What does not help is left out. */
export function bondingMends(design: Design, catalogue: readonly EquipmentType[]): BondingMend[] {
  const before = countOf(design, catalogue);
  if (before.over === 0) return [];
  const changes = [
    ...design.stacks.flatMap((stack) => stackChanges(design, catalogue, stack)),
    ...design.generators.flatMap((generator) => generatorChanges(design, catalogue, generator)),
    ...siteChanges(design),
  ];
  return (
    changes
      .map(({ id, label, make }): BondingMend => {
        const after = make(design);
        return { id, label, edits: diff(design, after), before, after: countOf(after, catalogue) };
      })
      .filter(({ edits, after }) => edits.length > 0 && after.over < before.over)
      // Of two that mend as much, what is set or linked comes before what has to be bought.
      .sort(
        (a, b) =>
          a.after.over - b.after.over || a.after.unknown - b.after.unknown || costOf(a.id) - costOf(b.id),
      )
  );
}
