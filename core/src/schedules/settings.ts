import { newestFirmware } from '../installation/newestFirmware.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Unit } from '../installation/facts.ts';
import type { DeliveryTick } from '../design/delivery.ts';
import { fieldId } from './fieldId.ts';
import { isAsWanted } from './readBack.ts';
import { figuresOfReserve, percentOf } from './settingFigures.ts';
import type { Cell, Column, Row, RowState, Schedule } from './table.ts';

type Key = 'device' | 'setting' | 'wanted' | 'typed' | 'by' | 'why';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'device', title: 'Device' },
  { key: 'setting', title: 'Setting' },
  { key: 'wanted', title: 'Wanted' },
  { key: 'typed', title: 'As it is set' },
  { key: 'by', title: 'Read by' },
  { key: 'why', title: 'Why' },
];

/** One setting of one device: what the design wants it to be, and what somebody has read there. */
interface Setting {
  readonly id: string;
  readonly setting: string;
  readonly wanted: Cell;
  readonly why: string;
  readonly typed?: Cell;
}

/** What is noted of a setting read back on site. */
export const settingId = (rowId: string): string => fieldId('s', rowId);

/** A setting that nobody has read there has no verdict: what is wanted is no proof of what is set. */
function stateOf({ wanted, typed }: Setting): { readonly state?: RowState } {
  if (wanted === null) return { state: 'unknown' };
  if (typed === undefined || typed === null) return {};
  return { state: isAsWanted(wanted, String(typed)) ? 'within' : 'over' };
}

function gridSettings({ site }: Installation): Setting[] {
  const isOff = site.grid === 'none';
  return [
    {
      id: 'clock',
      setting: 'Date and time',
      wanted: 'of the site',
      why: 'Time windows and the log go by it.',
    },
    {
      id: 'grid-code',
      setting: 'Grid code',
      wanted: isOff ? 'off grid' : site.codeProfile === undefined ? null : 'of the network operator',
      why: isOff
        ? 'The site has no grid.'
        : 'Protection at the grid port follows from it; ask the network operator.',
    },
  ];
}

function outputSettings({ site }: Installation, unit: Unit): Setting[] {
  return [
    {
      id: 'voltage',
      setting: 'Output voltage',
      wanted: site.lineVoltageV === undefined ? null : `${site.lineVoltageV} V`,
      ...(unit.outputV === undefined ? {} : { typed: `${unit.outputV} V` }),
      why: 'Line to neutral of the site.',
    },
    {
      id: 'frequency',
      setting: 'Output frequency',
      wanted: site.frequencyHz === undefined ? null : `${site.frequencyHz} Hz`,
      ...(unit.frequencyHz === undefined ? {} : { typed: `${unit.frequencyHz} Hz` }),
      why: 'Of the site; all units of a set alike.',
    },
    {
      id: 'backup',
      setting: 'Backup output',
      wanted: 'on',
      why: 'Without it the boards are dark in island.',
    },
  ];
}

function parallelSettings(compiled: CompiledStack, unit: Unit): Setting[] {
  const { stack } = compiled;
  const at = stack.units.indexOf(unit);
  if (stack.units.length < 2)
    return [{ id: 'parallel', setting: 'Parallel mode', wanted: 'off', why: 'It works alone.' }];
  const host = stack.hostUnitId ?? stack.units[0]?.id;
  return [
    {
      id: 'parallel',
      setting: 'Parallel mode',
      wanted: unit.line === undefined ? 'on' : `on, line ${unit.line}`,
      why: `One of ${stack.units.length} units${unit.line === undefined ? '' : `, on line ${unit.line}`}.`,
    },
    { id: 'count', setting: 'Units in the set', wanted: stack.units.length, why: 'As many as are joined.' },
    {
      id: 'role',
      setting: 'Role',
      wanted: unit.id === host ? 'host' : 'follower',
      why: unit.id === host ? 'It holds the battery bus and the meter.' : 'The host leads.',
    },
    {
      id: 'address',
      setting: 'Address on the parallel bus',
      wanted: unit.busAddress ?? at + 1,
      ...(unit.busAddress === undefined ? {} : { typed: unit.busAddress }),
      why: 'Each its own.',
    },
  ];
}

function batterySettings(compiled: CompiledStack): Setting[] {
  const { stack } = compiled;
  const { bank } = stack;
  if (bank === undefined) return [];
  if (bank === 'none')
    return [{ id: 'battery', setting: 'Battery', wanted: 'none', why: 'The set has no battery.' }];
  const type = bank.batteryTypeId === undefined ? undefined : compiled.batteryTypes[bank.batteryTypeId];
  const { capacityAh, isClosed } = figuresOfReserve(compiled);
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
      id: 'reserve',
      setting: 'Backup reserve',
      wanted: percentOf(bank.reserveSoc),
      why: 'What is kept for an outage.',
    },
    { id: 'cutoff', setting: 'Cut-off', wanted: percentOf(bank.cutoffSoc), why: 'Below this the set stops.' },
  ];
}

function chargingSettings(installation: Installation, compiled: CompiledStack): Setting[] {
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

function relaySetting({ stack, type }: CompiledStack, unit: Unit): Setting[] {
  const kind = type.known ? type.value.neutralEarthRelay : undefined;
  if (kind !== 'yes') return [];
  const wanted = unit.neutralEarthRelay ?? stack.neutralEarthRelay ?? null;
  return [
    {
      id: 'relay',
      setting: 'Neutral–earth relay in island',
      wanted,
      why: 'Exactly one bond stands in each mode: see the mode matrix.',
    },
  ];
}

function firmwareSettings({ stack, type }: CompiledStack, unit: Unit): Setting[] {
  const wanted = newestFirmware(stack.units.map(({ firmware }) => firmware));
  const parts = type.known ? (type.value.firmwareParts ?? []) : [];
  return [
    {
      id: 'firmware',
      setting: 'Firmware',
      wanted: wanted ?? null,
      ...(unit.firmware === undefined ? {} : { typed: unit.firmware }),
      why: `The same on all units of a set${parts.length > 1 ? `; loaded in this order: ${parts.join(', ')}, then restarted` : ''}.`,
    },
  ];
}

function unitRows(
  installation: Installation,
  compiled: CompiledStack,
  unit: Unit,
  ticks: ReadonlyMap<string, DeliveryTick>,
): Row<Key>[] {
  const at = compiled.stack.units.indexOf(unit) + 1;
  const device = installation.stacks.length > 1 ? `unit ${at} of ${compiled.stack.name}` : `unit ${at}`;
  const settings = [
    ...gridSettings(installation),
    ...(compiled.stack.arrangement === 'dc-side-box' ? [] : outputSettings(installation, unit)),
    ...parallelSettings(compiled, unit),
    ...batterySettings(compiled),
    ...chargingSettings(installation, compiled),
    ...relaySetting(compiled, unit),
    ...firmwareSettings(compiled, unit),
    ...sensorSettings(installation, compiled, unit),
  ];
  return settings.map((one) => {
    const id = `${compiled.stack.id}/${unit.id} ${one.id}`;
    const tick = ticks.get(settingId(id));
    // What was read on site goes before what the survey said.
    const typed = tick?.read ?? one.typed;
    return {
      id,
      partIds: [`unit ${compiled.stack.id}/${unit.id}`],
      ...stateOf({ ...one, ...(typed === undefined ? {} : { typed }) }),
      cells: {
        device,
        setting: one.setting,
        wanted: one.wanted,
        typed: typed ?? '',
        by: tick?.read === undefined ? '' : (tick.by ?? ''),
        why: one.why,
      },
    };
  });
}

/** Ratio and place of the sensors that this unit reads. */
function sensorSettings({ instruments }: Installation, { stack }: CompiledStack, unit: Unit): Setting[] {
  return instruments.flatMap(({ instrument, type }): Setting[] => {
    const reader = instrument.readByUnitId ?? stack.hostUnitId ?? stack.units[0]?.id;
    if (instrument.readBy !== stack.id || reader !== unit.id) return [];
    const of = type.known ? type.value : undefined;
    if (instrument.kind === 'meter')
      return [
        {
          id: `meter ${instrument.id}`,
          setting: `Meter ${instrument.name ?? ''}`.trim(),
          wanted: of?.kind === 'meter' ? of.protocol : null,
          why: 'Protocol of its type.',
        },
      ];
    return [
      {
        id: `ratio ${instrument.id}`,
        setting: `Sensor ratio${instrument.line === undefined ? '' : `, ${instrument.line}`}`,
        wanted: of?.kind === 'sensor' ? of.ratio : null,
        ...(instrument.ratio === undefined ? {} : { typed: instrument.ratio }),
        why: 'As on its label.',
      },
    ];
  });
}

/** What every device has to be set to, and why; what has been read on site is held against it. */
export function settingSchedule(
  installation: Installation,
  delivery: readonly DeliveryTick[] = [],
): Schedule<Key> {
  const ticks = new Map(delivery.map((tick) => [tick.id, tick]));
  return {
    kind: 'settings',
    title: 'Settings',
    columns: COLUMNS,
    rows: installation.stacks.flatMap((compiled) =>
      compiled.stack.units.flatMap((unit) => unitRows(installation, compiled, unit, ticks)),
    ),
    notes: installation.stacks.flatMap(({ stack, type }) => {
      if (!type.known || type.value.settingsOrder === undefined || stack.units.length < 2) return [];
      return [
        type.value.settingsOrder === 'each-alone'
          ? `${stack.name}: set each unit alone, with the others off.`
          : `${stack.name}: settings are made with the parallel cable joined.`,
      ];
    }),
  };
}
