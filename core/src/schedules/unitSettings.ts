import { newestFirmware } from '../installation/newestFirmware.ts';
import type { Unit } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Setting } from './setting.ts';
import type { Cell } from './table.ts';

/** Clock and grid code. */
export function gridSettings({ site }: Installation): Setting[] {
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

/** Which outputs the backed-up boards hang on, where the type has several. */
function outletsOf({ partitions, type }: CompiledStack): Cell {
  const outputs = type.known ? (type.value.outputs ?? []) : [];
  if (outputs.length < 2) return 'on';
  const used = outputs.filter(({ id }) => partitions.some(({ outputId }) => outputId === id));
  return used.length === 0 ? null : `on: ${used.map(({ name }) => name).join(', ')}`;
}

/** What a unit makes, and where it comes out. */
export function outputSettings({ site }: Installation, compiled: CompiledStack, unit: Unit): Setting[] {
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
      wanted: outletsOf(compiled),
      why: 'Without it the boards are dark in island.',
    },
  ];
}

/** How a unit stands among the others of its set. */
export function parallelSettings(compiled: CompiledStack, unit: Unit): Setting[] {
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
    {
      id: 'count',
      setting: 'Units in the set',
      wanted: String(stack.units.length),
      why: 'As many as are joined.',
    },
    {
      id: 'role',
      setting: 'Role',
      wanted: unit.id === host ? 'host' : 'follower',
      why: unit.id === host ? 'It holds the battery bus and the meter.' : 'The host leads.',
    },
    {
      id: 'address',
      setting: 'Address on the parallel bus',
      wanted: String(unit.busAddress ?? at + 1),
      ...(unit.busAddress === undefined ? {} : { typed: String(unit.busAddress) }),
      why: 'Each its own.',
    },
  ];
}

/** The neutral–earth relay, where the type has one. */
export function relaySetting({ stack, type }: CompiledStack, unit: Unit): Setting[] {
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

/** Every firmware of a unit: part by part, in the order of loading, where its type has parts. */
export function firmwareSettings({ stack, type }: CompiledStack, unit: Unit): Setting[] {
  const parts = type.known ? (type.value.firmwareParts ?? []) : [];
  const versionOf = (one: Unit, part: string): string | undefined =>
    one.firmwareParts?.find(({ id }) => id === part)?.version;
  const row = (id: string, name: string, of: (one: Unit) => string | undefined, why: string): Setting => {
    const typed = of(unit);
    return {
      id,
      setting: name,
      wanted: newestFirmware(stack.units.map(of)) ?? null,
      ...(typed === undefined ? {} : { typed }),
      why,
    };
  };
  const same = 'The same on all units of a set';
  if (parts.length < 2) return [row('firmware', 'Firmware', ({ firmware }) => firmware, `${same}.`)];
  const last = parts.length - 1;
  return parts.map((part, at) =>
    row(
      `firmware ${part}`,
      `Firmware, ${part}`,
      (one) => versionOf(one, part),
      `${same}. ${at === 0 ? 'Loaded first' : at === last ? 'Loaded last; then restarted' : `Loaded after ${parts[at - 1] ?? ''}`}.`,
    ),
  );
}

const MODE_WHY = {
  always: 'Of its type.',
  'in-a-set': 'Units of a set would work against each other.',
  'with-a-generator': 'It would feed into the generator, or keep it from running.',
  'without-a-grid': 'It looks for a grid that is not there.',
} as const;

/** Modes of its menu that this design cannot have switched on. */
export function modesOff(installation: Installation, { stack, type }: CompiledStack): Setting[] {
  const holds = {
    always: true,
    'in-a-set': stack.units.length > 1,
    'with-a-generator': installation.generators.some(({ generator }) => generator.stackId === stack.id),
    'without-a-grid': installation.site.grid === 'none',
  };
  const off = type.known ? (type.value.modesOff ?? []) : [];
  return off
    .filter(({ when }) => holds[when])
    .map(({ text, when }): Setting => ({
      id: `mode ${text}`,
      setting: text,
      wanted: 'off',
      why: MODE_WHY[when],
    }));
}
