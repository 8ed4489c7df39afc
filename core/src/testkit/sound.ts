import { planBus, planComms, plannedAddress } from '../advise/wiring.ts';
import { lackingIsolators } from '../advise/setUp/isolators.ts';
import type { Arrangement, InverterType } from '../catalogue/inverterType.ts';
import type { BatteryType } from '../catalogue/batteryType.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import type { Circuit, Design, Stack } from '../design/schema.ts';
import type { Line } from '../values/quantities.ts';
import { baseDesign, heater } from './designs.ts';

/** What a sound design is made of; the rest is stated in full. */
export interface SoundSpec {
  readonly name: string;
  readonly supply: keyof typeof SUPPLY_LINES;
  readonly arrangement: Arrangement;
  readonly inverterId: string;
  readonly batteryId: string;
  readonly unitLines: readonly (Line | undefined)[];
  readonly modules: number;
  /** Watts of a heater on each line. */
  readonly lineW: number;
  /** Battery leads of its inverters and their device, where other than 70 mm² and a fuse of 160 A; leads of its modules, where other than 50 mm². */
  readonly battery?: { readonly leadMm2: number; readonly deviceId: string; readonly moduleLeadMm2?: number };
  readonly edit?: (design: Design) => void;
}

function sampleOf<K extends 'inverter' | 'battery'>(
  kind: K,
  id: string,
): K extends 'inverter' ? InverterType : BatteryType {
  const found = SAMPLE_TYPES.find((type) => type.id === id);
  if (found?.kind !== kind) throw new Error(`There is no sample ${kind} "${id}".`);
  return found as K extends 'inverter' ? InverterType : BatteryType;
}

function unitsOf({ unitLines }: SoundSpec): Stack['units'] {
  const several = unitLines.length > 1;
  return unitLines.map((line, index) => ({
    id: `u${index + 1}`,
    ...(line === undefined ? {} : { line }),
    firmware: '1.0',
    batteryProfile: 'rack',
    barPlace: index + 1,
    ...(several ? { acLead: { lengthM: 2, areaMm2: 10 }, ownAcDevice: 'yes' as const } : {}),
  }));
}

function bankFor(spec: SoundSpec, inverter: InverterType, battery: BatteryType): Stack['bank'] {
  const isSeries = battery.joining === 'series';
  const modules = Array.from({ length: spec.modules }, (_, index) => {
    const address = plannedAddress(battery, index);
    return { id: `m${index + 1}`, ...(address === undefined ? {} : { address }) };
  });
  const area = spec.battery?.leadMm2 ?? (isSeries ? 16 : 70);
  const bank = {
    batteryTypeId: spec.batteryId,
    modules,
    reserveSoc: 0.6,
    cutoffSoc: 0.1,
    serves: inverter.batteryRule === 'own-only' ? ('one-unit' as const) : ('all-units' as const),
    ...(isSeries
      ? {}
      : {
          joining: 'bars-equal' as const,
          lead: { lengthM: 1, areaMm2: spec.battery?.moduleLeadMm2 ?? 50 },
          barSegment: { lengthM: 0.2, areaMm2: 200 },
        }),
    inverterLead: {
      lengthM: 1.5,
      areaMm2: Math.min(area, inverter.terminals?.find(({ port }) => port === 'battery')?.maxMm2 ?? area),
    },
  };
  return {
    ...bank,
    comms: planComms(bank, battery, inverter) ?? {
      loop: 'open',
      links: [],
      setPoints: { chargeV: battery.maxV * 0.97, floatV: battery.maxV * 0.95, cutoffV: battery.minV * 1.05 },
    },
  };
}

/** A design in which everything is stated and nothing is wrong. */
export function soundDesign(spec: SoundSpec): Design {
  const inverter = sampleOf('inverter', spec.inverterId);
  const battery = sampleOf('battery', spec.batteryId);
  const design = baseDesign();
  const lines = SUPPLY_LINES[spec.supply];
  const lineVoltageV = inverter.nativeLines === 2 ? inverter.outputV / 2 : inverter.outputV;
  const isNorth = lineVoltageV < 150;
  Object.assign(design, { name: spec.name });
  Object.assign(design.site, {
    supply: spec.supply,
    lineVoltageV,
    frequencyHz: isNorth ? 60 : 50,
    codeProfile: isNorth ? 'north-american' : 'metric',
    serviceRatingA: 100,
    earthing: 'TN-S',
    prospectiveFaultA: 6000,
    utilityEarth: 'kept',
    localElectrode: 'none',
    maintenanceBypass: 'none',
    surviveUnitLoss: 'no',
    targetAutonomyH: 1,
    lowestC: -5,
  });
  design.circuits = lines.map((line): Circuit => ({
    id: `c${line}`,
    name: `Heat ${line}`,
    lines: [line],
    partitionId: 'b',
    items: [heater(`i${line}`, { runningW: spec.lineW, hoursPerDay: 12 })],
  }));
  const units = unitsOf(spec);
  const stack: Stack = {
    id: 's',
    name: 'Stack',
    inverterTypeId: spec.inverterId,
    arrangement: spec.arrangement,
    units,
    hostUnitId: 'u1',
    chargeCurrentA: 20,
    gridChargeW: 500,
    neutralEarthRelay: 'on',
    relayKit: 'fitted',
  };
  const bank = bankFor(spec, inverter, battery);
  design.stacks = [{ ...stack, ...(bank === undefined ? {} : { bank }) }];
  const [made] = design.stacks;
  if (made === undefined) throw new Error('It has a stack.');
  const bus = planBus(made, inverter);
  if (bus !== undefined) Object.assign(made, { busLinks: bus.busLinks, terminated: [...bus.terminated] });
  const isHigh = battery.joining === 'series';
  design.devices = units.map((unit, index) => ({
    id: `d${index + 1}`,
    role: 'battery-unit',
    stackId: 's',
    unitId: unit.id,
    fitted: 'yes',
    typeId: spec.battery?.deviceId ?? (isHigh ? 'dc-breaker-50a-hv' : 'dc-fuse-160a'),
  }));
  design.earthPoints = [
    {
      id: 'e',
      name: 'main earthing bar',
      joins: ['chassis', 'backed-up-earth', 'grid-earth', 'generator-frame'],
    },
  ];
  spec.edit?.(design);
  return withIsolators(design);
}

/** The design with a device at every source that has none. */
export function withIsolators(design: Design): Design {
  let made = design.devices.length;
  const isolators = lackingIsolators(design, (prefix) => `${prefix}-own-${(made += 1)}`);
  design.devices.push(...isolators.map((one) => ({ ...one, fitted: 'yes' as const })));
  return design;
}

/** What hangs on other lines than the first stays where the grid is. */
function firstLineAlone(design: Design): void {
  for (const circuit of design.circuits) if (circuit.lines?.[0] !== 'L1') circuit.partitionId = 'g';
}

/** One sound design for every arrangement that the compiler knows, and sets on one line of a larger supply. */
export const SOUND: readonly SoundSpec[] = [
  {
    name: 'one unit',
    supply: 'single-phase',
    arrangement: 'one-unit',
    inverterId: 'hybrid-5k-1ph',
    batteryId: 'lfp-51v-100ah',
    unitLines: [undefined],
    modules: 4,
    lineW: 2000,
  },
  {
    name: 'two in parallel',
    supply: 'single-phase',
    arrangement: 'parallel-single-phase',
    inverterId: 'hybrid-5k-1ph',
    batteryId: 'lfp-51v-100ah',
    unitLines: [undefined, undefined],
    modules: 6,
    lineW: 4000,
  },
  {
    name: 'split-phase native',
    supply: 'split-phase',
    arrangement: 'split-phase-native',
    inverterId: 'hybrid-10k-split',
    batteryId: 'lfp-51v-280ah',
    unitLines: [undefined],
    modules: 4,
    lineW: 2000,
    // 10 kW / (0.94 · 44.8 V) = 237 A, 1.25 · 237 A = 297 A: 350 kcmil carries 310 A at 75 °C.
    battery: { leadMm2: 177, deviceId: 'dc-fuse-250a' },
  },
  {
    name: 'split-phase from two',
    supply: 'split-phase',
    arrangement: 'split-phase-from-single',
    inverterId: 'hybrid-3k5-120v',
    batteryId: 'lfp-51v-100ah',
    unitLines: ['L1', 'L2'],
    modules: 6,
    lineW: 1500,
  },
  {
    name: 'split-phase by autotransformer',
    supply: 'split-phase',
    arrangement: 'split-phase-autotransformer',
    inverterId: 'hybrid-11k-240-hv',
    batteryId: 'lfp-102v-50ah-stack',
    unitLines: [undefined],
    modules: 4,
    lineW: 2000,
    edit: (d) =>
      Object.assign(d.stacks[0] ?? {}, {
        autotransformerTypeId: 'auto-120-240-40a',
        transferDeviceTypeId: 'transfer-200a-split',
        // The transfer device leaves the neutral solid: the bond of the utility stands on it in every mode.
        neutralEarthRelay: 'off',
      }),
  },
  {
    name: 'three-phase native',
    supply: 'three-phase',
    arrangement: 'three-phase-native',
    inverterId: 'hybrid-12k-3ph',
    batteryId: 'lfp-102v-50ah-stack',
    unitLines: [undefined],
    modules: 4,
    lineW: 1500,
  },
  {
    name: 'three-phase from single',
    supply: 'three-phase',
    arrangement: 'three-phase-from-single',
    inverterId: 'hybrid-5k-1ph',
    batteryId: 'lfp-51v-100ah',
    unitLines: ['L1', 'L2', 'L3'],
    modules: 8,
    lineW: 2000,
  },
  {
    name: 'three-phase ring',
    supply: 'three-phase',
    arrangement: 'three-phase-ring',
    inverterId: 'hybrid-8k-ring',
    batteryId: 'lfp-51v-280ah',
    unitLines: ['L1', 'L2', 'L3'],
    modules: 4,
    lineW: 2000,
    // 8 kW / (0.94 · 44.8 V) = 190 A, 1.25 · 190 A = 237 A: 250 kcmil carries 255 A at 75 °C. A module gives 140 A for good and is asked
    // for 3 · 190 / 4 = 142 A: 1.25 · 140 A = 175 A, which 2/0 AWG carries.
    battery: { leadMm2: 127, deviceId: 'dc-fuse-250a', moduleLeadMm2: 67.4 },
  },
  {
    name: 'one unit on a line of three',
    supply: 'three-phase',
    arrangement: 'one-unit',
    inverterId: 'hybrid-5k-1ph',
    batteryId: 'lfp-51v-100ah',
    unitLines: ['L1'],
    modules: 4,
    lineW: 2000,
    edit: firstLineAlone,
  },
  {
    name: 'two on a leg of two',
    supply: 'split-phase',
    arrangement: 'parallel-single-phase',
    inverterId: 'hybrid-3k5-120v',
    batteryId: 'lfp-51v-100ah',
    unitLines: ['L1', 'L1'],
    modules: 6,
    lineW: 1500,
    edit: firstLineAlone,
  },
  {
    name: 'AC-coupled storage',
    supply: 'single-phase',
    arrangement: 'ac-coupled-storage',
    inverterId: 'ac-storage-5k-1ph',
    batteryId: 'lfp-51v-100ah',
    unitLines: [undefined],
    modules: 3,
    lineW: 1000,
    edit: (d) => d.partitions.forEach((one) => one.kind === 'backup' && (one.outputId = 'outlet')),
  },
  {
    name: 'storage on the DC side',
    supply: 'single-phase',
    arrangement: 'dc-side-box',
    inverterId: 'dc-box-6k',
    batteryId: 'lfp-51v-100ah',
    unitLines: [undefined],
    modules: 4,
    lineW: 1000,
    edit: (d) => {
      d.circuits.forEach((one) => (one.partitionId = 'g'));
      d.partitions = d.partitions.filter(({ kind }) => kind === 'grid');
    },
  },
];
