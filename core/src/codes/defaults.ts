import { z } from 'zod';

/** Every planning default of the core, in one place. A job can override any of them, with a reason. */
export const DEFAULTS = {
  tightMargin: { value: 0.1, unit: '', meaning: 'Margin below which a passing check is called tight.' },
  currentSharingTolerance: {
    value: 0.05,
    unit: '',
    meaning: 'How unevenly paralleled inverters share current; 0 for one unit.',
  },
  moduleShareTolerance: {
    value: 0.1,
    unit: '',
    meaning: 'How far the hardest-working battery module is planned above the mean.',
  },
  shareTight: {
    value: 0.05,
    unit: '',
    meaning: 'How far a battery module may be from the mean before its sharing is called tight.',
  },
  shareLimit: { value: 0.1, unit: '', meaning: 'How far a battery module may be from the mean of the bank.' },
  leadSpreadTight: {
    value: 0.02,
    unit: '',
    meaning: 'Spread of inverter battery leads, in resistance, before it is called tight.',
  },
  leadSpreadLimit: {
    value: 0.1,
    unit: '',
    meaning: 'Largest spread of the resistance of inverter battery leads.',
  },
  acLeadSpread: {
    value: 0.1,
    unit: '',
    meaning: 'Spread of the AC leads of paralleled units, in resistance, before it is called tight.',
  },
  jointMilliohm: { value: 0.1, unit: 'mΩ', meaning: 'One bolted lug.' },
  breakerMilliohm: { value: 0.3, unit: 'mΩ', meaning: 'The battery breaker or fuse of an inverter.' },
  leadC: { value: 50, unit: '°C', meaning: 'Temperature of battery leads and bars in use.' },
  joiningV: {
    value: 0.1,
    unit: 'V',
    meaning: 'Voltage between module and bank at which they may be joined, on a 48 V bank.',
  },
  electronicThirdHarmonic: {
    value: 0.3,
    unit: '',
    meaning: 'Third-harmonic current of electronic loads, as a share of their fundamental.',
  },
  pvCurrentFactor: {
    value: 1.25,
    unit: '',
    meaning: 'Short-circuit current of PV strings in strong sun, over that at 1000 W/m².',
  },
  generatorLoading: {
    value: 0.8,
    unit: '',
    meaning: 'Share of the derated set that load and charging may take.',
  },
  generatorAltitudeM: {
    value: 150,
    unit: 'm',
    meaning: 'Altitude from which a generator loses power, where its type does not say.',
  },
  generatorAirC: {
    value: 25,
    unit: '°C',
    meaning: 'Air temperature from which a generator loses power, where its type does not say.',
  },
  generatorLeast: {
    value: 0.3,
    unit: '',
    meaning: 'Share of the derated set below which it should not run for long.',
  },
  voltageTolerance: { value: 0.06, unit: '', meaning: 'Voltage band of the islanding test.' },
  frequencyToleranceHz: { value: 0.5, unit: 'Hz', meaning: 'Frequency band of the islanding test.' },
  frequencyShiftHz: {
    value: 1,
    unit: 'Hz',
    meaning: 'How far a set may raise its frequency to hold back AC-coupled power.',
  },
  unitShareTolerance: {
    value: 0.1,
    unit: '',
    meaning: 'How far a unit may be from the mean of its line in the islanding test.',
  },
  neutralEarthLimitV: {
    value: 1,
    unit: 'V',
    meaning: 'Largest voltage between neutral and earth in island.',
  },
  testLoadTolerance: { value: 0.05, unit: '', meaning: 'How near the test load must be set to its step.' },
  abortVoltageTolerance: {
    value: 0.1,
    unit: '',
    meaning: 'Voltage departure at which a test step is stopped.',
  },
  insulationMinMohm: { value: 1, unit: 'MΩ', meaning: 'Least insulation resistance of the dead tests.' },
  batteryCurrentTolerance: {
    value: 0.15,
    unit: '',
    meaning: 'How far battery current may be from the model in the islanding test.',
  },
  startDip: { value: 0.2, unit: '', meaning: 'Largest voltage dip while the largest start is tested.' },
  reconnectDelayS: {
    value: 60,
    unit: 's',
    meaning: 'Least time the grid is watched before reconnecting, where the type does not say.',
  },
  startVoltage: {
    value: 0.7,
    unit: '',
    meaning: 'Share of nominal voltage below which a start probably stalls.',
  },
  meterCrest: {
    value: 1.3,
    unit: '',
    meaning: 'How far the true peak lies above the highest average of an interval meter.',
  },
  staggerMargin: {
    value: 0.1,
    unit: '',
    meaning: 'Headroom that proposed start delays leave to the overload curve.',
  },
  serviceLoopM: { value: 0.3, unit: 'm', meaning: 'Length left at each route for working on its ends.' },
  routeSlack: { value: 0.05, unit: '', meaning: 'Length added to each route for bends.' },
  dropBattery: {
    value: 0.01,
    unit: '',
    meaning: 'Voltage that a battery lead may lose, of the lowest it works at.',
  },
  dropMain: {
    value: 0.01,
    unit: '',
    meaning: 'Voltage that a cable between service, inverters, generator and boards may lose.',
  },
  dropLighting: { value: 0.03, unit: '', meaning: 'Voltage that the cable of a lighting circuit may lose.' },
  dropOther: { value: 0.05, unit: '', meaning: 'Voltage that the cable of any other circuit may lose.' },
  dropPv: { value: 0.01, unit: '', meaning: 'Voltage that the leads of a PV string may lose.' },
  dropStart: {
    value: 0.1,
    unit: '',
    meaning: 'Voltage that the cable of a circuit may lose while it starts.',
  },
  faultClearS: {
    value: 0.02,
    unit: 's',
    meaning: 'Time in which a device ends a fault that it opens on at once.',
  },
  torqueTolerance: {
    value: 0.1,
    unit: '',
    meaning: 'How far a torque may be from the one that a terminal wants.',
  },
  batteryDeviceM: {
    value: 3,
    unit: 'm',
    meaning:
      'Longest battery lead ahead of its first device, where it is laid so that a fault is unlikely: nothing protects it up to there.',
  },
  liftOneKg: { value: 25, unit: 'kg', meaning: 'Mass above which two people lift.' },
} as const satisfies Record<string, { value: number; unit: string; meaning: string }>;

export type DefaultKey = keyof typeof DEFAULTS;
export const DEFAULT_KEYS = Object.keys(DEFAULTS).filter((key): key is DefaultKey => key in DEFAULTS);
export const defaultKey = z.enum(DEFAULT_KEYS);

export interface ResolvedDefault {
  readonly key: DefaultKey;
  readonly value: number;
  /** The reason of the override, or undefined where the planning default stands. */
  readonly reason: string | undefined;
}

/** The defaults of a job: planning values, with the job's overrides laid over them. */
export function resolveDefaults(
  overrides: readonly { id: DefaultKey; value: number; reason: string }[],
): Record<DefaultKey, ResolvedDefault> {
  const byKey = new Map(overrides.map((override) => [override.id, override]));
  const entry = (key: DefaultKey): ResolvedDefault => {
    const override = byKey.get(key);
    return { key, value: override?.value ?? DEFAULTS[key].value, reason: override?.reason };
  };
  return Object.fromEntries(DEFAULT_KEYS.map((key) => [key, entry(key)])) as Record<
    DefaultKey,
    ResolvedDefault
  >;
}
