import type { InverterType } from '../inverterType.ts';

type Terminals = NonNullable<InverterType['terminals']>;

/** Terminals of a sample: AC ports up to one size, the grid port up to another, the battery up to a third, mm². */
export function terminals(acMm2: number, gridMm2: number, batteryMm2: number): Terminals {
  const screw = { stripMm: 12, torqueNm: 1.8, ends: ['bare', 'ferrule'], mostConductors: 1 } as const;
  const port = (name: string, maxMm2: number): Terminals[number] => ({
    port: name,
    minMm2: 1.5,
    maxMm2,
    ...screw,
    ends: [...screw.ends],
  });
  return [
    port('grid', gridMm2),
    port('backup', acMm2),
    port('generator', acMm2),
    {
      port: 'battery',
      minMm2: 6,
      maxMm2: batteryMm2,
      stripMm: 18,
      torqueNm: 8,
      ends: ['ring'],
      mostConductors: 1,
    },
    { port: 'pv', minMm2: 4, maxMm2: 6, stripMm: 7, ends: ['plug'], mostConductors: 1 },
  ];
}

/** A small terminal for the cores that feed the controls of a transfer device. */
export const CONTROL_TERMINAL: Terminals[number] = {
  port: 'control',
  minMm2: 0.75,
  maxMm2: 4,
  stripMm: 8,
  torqueNm: 0.6,
  ends: ['bare', 'ferrule'],
  mostConductors: 1,
};

/** What the low-voltage samples show on the way from dead to live. */
const LOW_VOLTAGE_MESSAGES: InverterType['messages'] = [
  { text: 'green lamp, slow', at: 'inverter-on', means: 'right' },
  { text: 'no grid', at: 'inverter-on', means: 'clears', until: 'grid-on' },
  { text: 'configuration mismatch', at: 'inverter-on', means: 'stop' },
  { text: 'two hosts', at: 'settings', means: 'stop' },
  { text: 'watching the grid', at: 'grid-on', means: 'clears', until: 'live-on-grid' },
  { text: 'line order', at: 'grid-on', means: 'stop' },
  { text: 'input asleep', at: 'pv-on', means: 'right' },
  { text: 'insulation low', at: 'pv-on', means: 'stop' },
  { text: 'island, amber lamp', at: 'island', means: 'right' },
  { text: 'overload', at: 'island', means: 'stop' },
];

/** How the low-voltage samples are joined, watched and set up. */
export const LOW_VOLTAGE_SET = {
  batteryRule: 'shared-only',
  batteryProtocols: ['bus-a', 'bus-b'],
  batteryCommsPort: 'BAT',
  neutralEarthRelay: 'yes',
  relayWithGenerator: 'closed',
  transferNeutral: 'switched',
  mixedTypes: 'no',
  parallelBus: { fromPort: 'P-OUT', toPort: 'P-IN', shape: 'line', ends: 'switch', cable: 'supplied-only' },
  hostRule: 'holds-battery-and-meter',
  settingsOrder: 'parallel-cable-joined',
  modesOff: [
    { text: 'feed in at any price', when: 'in-a-set' },
    { text: 'flatten the peak of the grid', when: 'with-a-generator' },
    { text: 'wait for the grid', when: 'without-a-grid' },
  ],
  residualDevice: 'A',
  filterLeakageMa: 3,
  commsPins: [
    { port: 'BAT', plus: '4', minus: '5', longestM: 10 },
    { port: 'meter', plus: '7', minus: '8', longestM: 100 },
  ],
  pairIdleV: { min: 3.8, max: 5 },
  networkBy: 'either',
  networkPort: 'net',
  messages: LOW_VOLTAGE_MESSAGES,
  selfCheckS: 'none',
} satisfies Partial<InverterType>;

/** The same for the samples with high-voltage batteries: one stack each, terminators plugged in. */
export const HIGH_VOLTAGE_SET = {
  batteryRule: 'own-only',
  batteryProtocols: ['bus-hv'],
  batteryCommsPort: 'BMS',
  neutralEarthRelay: 'yes',
  relayWithGenerator: 'closed',
  transferNeutral: 'switched',
  mixedTypes: 'no',
  parallelBus: { fromPort: 'COM-B', toPort: 'COM-A', shape: 'line', ends: 'plug', cable: 'any' },
  hostRule: 'chosen-in-settings',
  settingsOrder: 'each-alone',
  modesOff: [{ text: 'storm forecast', when: 'always' }],
  residualDevice: 'B',
  filterLeakageMa: 8,
  commsPins: [
    { port: 'BMS', plus: '4', minus: '5', longestM: 10 },
    { port: 'box', plus: '4', minus: '5', ground: '8', longestM: 30 },
    { port: 'meter', plus: '3', minus: '6', longestM: 100 },
  ],
  pairIdleV: { min: 3.8, max: 5 },
  networkBy: 'radio',
  messages: [
    { text: 'standing by', at: 'grid-on', means: 'clears', until: 'live-on-grid' },
    { text: 'line order', at: 'grid-on', means: 'stop' },
    { text: 'string open', at: 'inverter-on', means: 'stop' },
    { text: 'self-check due', at: 'settings', means: 'clears', until: 'self-check' },
    { text: 'backup running', at: 'island', means: 'right' },
    { text: 'overload', at: 'island', means: 'stop' },
  ],
  selfCheckS: 180,
} satisfies Partial<InverterType>;
