import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { Unit } from '../installation/facts.ts';
import type { DeliveryTick } from '../design/delivery.ts';
import { fieldId } from './fieldId.ts';
import { isAsWanted } from './readBack.ts';
import { batterySettings, chargingSettings } from './batterySettings.ts';
import { controllerSettings, sensorSettings } from './instrumentSettings.ts';
import { typeOfUnit } from '../figures/wiring/acCarried.ts';
import { speaksForSet } from '../installation/speaksForSet.ts';
import { networkSetting } from './networkSetting.ts';
import type { Setting } from './setting.ts';
import {
  firmwareSettings,
  gridSettings,
  modesOff,
  outputSettings,
  parallelSettings,
  relaySetting,
} from './unitSettings.ts';
import type { Column, Row, RowState, Schedule } from './table.ts';

type Key = 'device' | 'setting' | 'wanted' | 'typed' | 'by' | 'why';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'device', title: 'Device' },
  { key: 'setting', title: 'Setting' },
  { key: 'wanted', title: 'Wanted' },
  { key: 'typed', title: 'As it is set' },
  { key: 'by', title: 'Read by' },
  { key: 'why', title: 'Why' },
];

/** What is noted of a setting read back on site. */
export const settingId = (rowId: string): string => fieldId('s', rowId);

/** A setting that nobody has read there has no verdict: what is wanted is no proof of what is set. */
function stateOf({ wanted, typed }: Setting): { readonly state?: RowState } {
  if (wanted === null) return { state: 'unknown' };
  if (typed === undefined || typed === null) return {};
  return { state: isAsWanted(wanted, String(typed)) ? 'within' : 'over' };
}

type Ticks = ReadonlyMap<string, DeliveryTick>;

function rowsOf(
  settings: readonly Setting[],
  of: { readonly id: string; readonly partId: string; readonly device: string },
  ticks: Ticks,
): Row<Key>[] {
  return settings.map((one) => {
    const id = `${of.id} ${one.id}`;
    const tick = ticks.get(settingId(id));
    // What was read on site goes before what the survey said.
    const typed = tick?.read ?? one.typed;
    return {
      id,
      partIds: [of.partId],
      ...stateOf({ ...one, ...(typed === undefined ? {} : { typed }) }),
      cells: {
        device: of.device,
        setting: one.setting,
        wanted: one.wanted,
        typed: typed ?? '',
        by: tick?.read === undefined ? '' : (tick.by ?? ''),
        why: one.why,
      },
    };
  });
}

function unitRows(installation: Installation, compiled: CompiledStack, unit: Unit, ticks: Ticks): Row<Key>[] {
  const at = compiled.stack.units.indexOf(unit) + 1;
  const device = installation.stacks.length > 1 ? `unit ${at} of ${compiled.stack.name}` : `unit ${at}`;
  const settings = [
    ...gridSettings(installation),
    ...(compiled.stack.arrangement === 'dc-side-box' ? [] : outputSettings(installation, compiled, unit)),
    ...parallelSettings(compiled, unit),
    ...batterySettings(compiled),
    ...chargingSettings(installation, compiled),
    ...relaySetting(compiled, unit),
    ...firmwareSettings(compiled, unit),
    ...sensorSettings(installation, compiled, unit),
    ...networkSetting(
      unit.network,
      typeOfUnit(installation, compiled, unit),
      speaksForSet(installation, compiled, unit),
    ),
    ...modesOff(installation, compiled),
  ];
  const id = `${compiled.stack.id}/${unit.id}`;
  return rowsOf(settings, { id, partId: `unit ${id}`, device }, ticks);
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
    rows: [
      ...installation.stacks.flatMap((compiled) =>
        compiled.stack.units.flatMap((unit) => unitRows(installation, compiled, unit, ticks)),
      ),
      ...installation.controllers.flatMap((one) => {
        const id = `controller ${one.controller.id}`;
        return rowsOf(controllerSettings(one), { id, partId: id, device: one.controller.name }, ticks);
      }),
    ],
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
