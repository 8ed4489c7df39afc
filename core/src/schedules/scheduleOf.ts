import type { EquipmentType } from '../catalogue/schema.ts';
import type { Design } from '../design/schema.ts';
import type { Installation } from '../installation/installation.ts';
import { asBuiltSchedule } from './asBuilt.ts';
import { commsSchedule } from './comms.ts';
import { conductorSchedule } from './conductors.ts';
import { cutSchedule } from './cuts.ts';
import { deviceSchedule } from './devices.ts';
import { fittingSchedule } from './fittings.ts';
import { labelSchedule } from './labels.ts';
import { partsSchedule } from './partsList.ts';
import { sensorSchedule } from './sensors.ts';
import { settingSchedule } from './settings.ts';
import type { Cell, Schedule, ScheduleKind } from './table.ts';
import { terminationSchedule } from './terminations.ts';

/** What a schedule is made from. Only the parts list looks at the design: it names equipment that nothing joins yet. */
export interface ScheduleSource {
  readonly design: Design;
  readonly catalogue: readonly EquipmentType[];
  readonly installation: Installation;
}

/** One schedule of a job. */
export function scheduleOf(
  kind: ScheduleKind,
  { design, catalogue, installation }: ScheduleSource,
): Schedule {
  switch (kind) {
    case 'conductors':
      return conductorSchedule(installation);
    case 'terminations':
      return terminationSchedule(installation, design.delivery);
    case 'comms':
      return commsSchedule(installation, design.delivery);
    case 'sensors':
      return sensorSchedule(installation);
    case 'devices':
      return deviceSchedule(installation);
    case 'settings':
      return settingSchedule(installation, design.delivery);
    case 'cuts':
      return cutSchedule(installation);
    case 'parts':
      return partsSchedule(design, catalogue, installation);
    case 'labels':
      return labelSchedule(installation);
    case 'fittings':
      return fittingSchedule(installation);
    case 'as-built':
      return asBuiltSchedule(installation, design.delivery);
  }
}

/** What a cell shows: what is not known says so. */
export const cellText = (cell: Cell | undefined): string =>
  cell === null || cell === undefined ? 'not known' : String(cell);

/** A schedule as the rows of a sheet, headings first. */
export const scheduleSheet = ({ columns, rows }: Schedule): string[][] => [
  columns.map(({ title, unit }) => (unit === undefined ? title : `${title} [${unit}]`)),
  ...rows.map(({ cells }) => columns.map(({ key }) => cellText(cells[key]))),
];
