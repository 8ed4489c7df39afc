import { bankOfSet } from '../figures/bank/ofSet.ts';
import type { SetSettings } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import { percentOf, type Setting } from './setting.ts';
import type { Cell } from './table.ts';

const dischargeOf = ({ stack, type }: CompiledStack): Cell =>
  stack.dischargeCurrentA !== undefined
    ? `${stack.dischargeCurrentA} A`
    : type.known
      ? `${type.value.maxDischargeA} A`
      : null;

const WORK_WORDS = {
  'own-use': 'own use: stores what the sun leaves',
  'backup-first': 'backup first: keeps the bank full',
  'by-time': 'by time windows',
} as const;

const WINDOW_WORDS = {
  charge: 'charges from the grid',
  discharge: 'discharges',
  hold: 'holds its charge',
} as const;

/** Work mode, and each of its windows. */
const workSettings = ({ workMode, windows = [] }: SetSettings = {}): Setting[] => [
  {
    id: 'work-mode',
    setting: 'Work mode',
    wanted: workMode === undefined ? null : WORK_WORDS[workMode],
    why: 'On grid it decides what is in the bank when the grid goes; the reserve holds in all of them.',
  },
  ...(workMode === 'by-time'
    ? windows.map(({ id, from, to, does }): Setting => ({
        id: `window ${id}`,
        setting: `Window ${from} to ${to}`,
        wanted: WINDOW_WORDS[does],
        why: 'The work mode goes by the hour.',
      }))
    : []),
];

/** At which states of charge a generator is called and let go. */
const levelSettings = ({ generatorFromSoc, generatorToSoc }: SetSettings = {}): Setting[] => [
  {
    id: 'generator-from',
    setting: 'Generator is called at',
    wanted: percentOf(generatorFromSoc),
    why: 'Above the cut-off by what is used while it warms up.',
  },
  {
    id: 'generator-to',
    setting: 'Generator is let go at',
    wanted: percentOf(generatorToSoc),
    why: 'Below full: the last part charges slowly, and the set would run nearly empty.',
  },
];

/** What an inverter has to know of its bank. */
export function batterySettings(compiled: CompiledStack): Setting[] {
  const { stack } = compiled;
  const { bank } = stack;
  if (bank === undefined) return [];
  if (bank === 'none')
    return [{ id: 'battery', setting: 'Battery', wanted: 'none', why: 'The set has no battery.' }];
  const type = bank.batteryTypeId === undefined ? undefined : compiled.batteryTypes[bank.batteryTypeId];
  const found = bankOfSet(compiled);
  const capacityAh = found.known && found.value !== 'none' ? found.value.capacityAh : undefined;
  const isClosed = bank.comms?.loop === 'closed';
  const points = bank.comms?.setPoints;
  return [
    {
      id: 'battery',
      setting: 'Battery kind',
      wanted:
        type === undefined
          ? null
          : isClosed
            ? `${type.chemistry.replaceAll('-', ' ')}, closed loop`
            : `${type.chemistry.replaceAll('-', ' ')}, by voltage`,
      why: type?.name ?? '',
    },
    ...(isClosed
      ? [
          {
            id: 'protocol',
            setting: 'Battery protocol',
            wanted: bank.comms?.protocol ?? null,
            why: 'The one that both types speak.',
          },
        ]
      : [
          {
            id: 'charge-voltage',
            setting: 'Charge voltage',
            wanted: points?.chargeV === undefined ? null : `${points.chargeV} V`,
            why: 'Open loop: the inverter works by voltages.',
          },
          {
            id: 'float-voltage',
            setting: 'Float voltage',
            wanted: points?.floatV === undefined ? null : `${points.floatV} V`,
            why: 'Open loop.',
          },
          {
            id: 'cutoff-voltage',
            setting: 'Cut-off voltage',
            wanted: points?.cutoffV === undefined ? null : `${points.cutoffV} V`,
            why: 'Open loop.',
          },
        ]),
    {
      id: 'capacity',
      setting: 'Battery capacity',
      wanted: capacityAh === undefined ? null : `${capacityAh} Ah`,
      why: 'Sum of the modules that this inverter draws from.',
    },
    {
      id: 'charge',
      setting: 'Charge current',
      wanted: stack.chargeCurrentA === undefined ? null : `${stack.chargeCurrentA} A`,
      why: 'Each unit; the bank takes the sum of them.',
    },
    {
      id: 'discharge',
      setting: 'Discharge current',
      wanted: dischargeOf(compiled),
      why:
        stack.dischargeCurrentA === undefined
          ? 'As much as its type takes: the design counts on it.'
          : 'Each unit; what the bank is asked for counts on it.',
    },
    {
      id: 'reserve',
      setting: 'Backup reserve',
      wanted: percentOf(bank.reserveSoc),
      why: 'What is kept for an outage.',
    },
    { id: 'cutoff', setting: 'Cut-off', wanted: percentOf(bank.cutoffSoc), why: 'Below this the set stops.' },
  ];
}

/** When and from what the bank is charged, and how a generator is called. */
export function chargingSettings(installation: Installation, compiled: CompiledStack): Setting[] {
  const { stack } = compiled;
  const power = (watts: number | undefined): Cell =>
    watts === undefined ? null : watts === 0 ? 'off' : `${watts} W`;
  const generator = installation.generators.find((one) => one.generator.stackId === stack.id);
  const type = generator?.type.known === true ? generator.type.value : undefined;
  const isPort = generator?.generator.connection === 'generator-port';
  return [
    ...(installation.site.grid === 'none'
      ? []
      : [
          {
            id: 'grid-charge',
            setting: 'Charging from the grid',
            wanted: power(stack.gridChargeW),
            why: 'Each unit; service and grid port carry it on top of the loads.',
          },
          ...workSettings(stack.settings),
        ]),
    ...(generator === undefined
      ? [
          {
            id: 'generator',
            setting: 'Generator',
            wanted: 'none',
            why: 'No generator is joined to this set.',
          },
        ]
      : [
          {
            id: 'generator-power',
            setting: 'Generator power',
            wanted: type === undefined ? null : `${type.ratedVa} VA`,
            why: `${generator.generator.name}, as on its plate.`,
          },
          {
            id: 'generator-start',
            setting: 'Generator start',
            wanted:
              type === undefined
                ? null
                : { hand: 'by hand', 'two-wire': 'by two-wire contact', scheduled: 'by its own schedule' }[
                    type.start
                  ],
            why: 'How the set is started.',
          },
          ...(type?.start === 'two-wire' ? levelSettings(stack.settings) : []),
          {
            id: 'generator-charge',
            setting: 'Charging from the generator',
            wanted: power(isPort ? stack.generatorChargeW : stack.gridChargeW),
            why: isPort
              ? 'Each unit, so that load and charging leave the set room.'
              : 'Behind a transfer switch the inverter takes it for the grid.',
          },
        ]),
  ];
}
