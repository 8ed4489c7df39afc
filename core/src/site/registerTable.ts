/** How a figure lies in registers of 16 bits, the high word first. */
export type RegisterType = 'u16' | 's16' | 'u32' | 's32';

/** One figure of a block: its place from the start of the block, and what one count stands for. */
export interface RegisterField {
  readonly field: string;
  readonly type: RegisterType;
  /** Value = raw figure · scale. */
  readonly scale: number;
  readonly unit: string;
  readonly access: 'read' | 'write';
  readonly meaning: string;
}

/** Things of one kind, each with the same fields, `stride` registers apart. */
export interface RegisterBlock {
  readonly block: string;
  readonly base: number;
  readonly stride: number;
  readonly most: number;
  /** The field of the site block that says how many there are; undefined for the site itself. */
  readonly count: string | undefined;
  readonly fields: readonly RegisterField[];
}

const read = (
  field: string,
  type: RegisterType,
  scale: number,
  unit: string,
  meaning: string,
): RegisterField => ({
  field,
  type,
  scale,
  unit,
  access: 'read',
  meaning,
});
const write = (
  field: string,
  type: RegisterType,
  scale: number,
  unit: string,
  meaning: string,
): RegisterField => ({
  ...read(field, type, scale, unit, meaning),
  access: 'write',
});

/** The number of this map, at address 0: a reader that knows another one stops there. */
export const MAP_NUMBER = 2;

/** The one register map: the simulated site answers by it, the reader reads by it, and the tests hold both to it. Holding registers. */
export const REGISTER_BLOCKS: readonly RegisterBlock[] = [
  {
    block: 'site',
    base: 0,
    stride: 40,
    most: 1,
    count: undefined,
    fields: [
      read('map', 'u16', 1, '', 'Number of this map'),
      read('lines', 'u16', 1, '', 'Lines of the supply'),
      read('sets', 'u16', 1, '', 'Sets of inverters'),
      read('units', 'u16', 1, '', 'Units in all sets'),
      read('modules', 'u16', 1, '', 'Battery modules in all sets'),
      read('generators', 'u16', 1, '', 'Generators'),
      read('instruments', 'u16', 1, '', 'Meters and sensors'),
      read('circuits', 'u16', 1, '', 'Circuits with a contact of their own'),
      read('clockS', 'u32', 1, 's', 'Time since the site was opened'),
      read(
        'mode',
        'u16',
        1,
        '',
        'Mode: 0 on grid, 1 island, 2 generator port, 3 transfer switch, 4 inlet, 5 bypass',
      ),
      read('gridHz', 'u16', 0.01, 'Hz', 'Frequency of the grid; 0 while it is away'),
      write('isolator', 'u16', 1, '', 'Isolator between grid and sets, 0 or 1'),
    ],
  },
  {
    block: 'line',
    base: 100,
    stride: 20,
    most: 3,
    count: 'lines',
    fields: [
      read('voltageV', 'u16', 0.01, 'V', 'Line to neutral on the backed-up side'),
      read('loadA', 'u32', 0.001, 'A', 'Current of the backed-up side'),
      read('loadW', 's32', 1, 'W', 'Power of the backed-up side'),
      read('lowestV', 'u16', 0.01, 'V', 'Lowest voltage since the last transfer or change of the test load'),
      read('gridV', 'u16', 0.01, 'V', 'Line to neutral of the grid'),
      write('testLoadW', 'u32', 1, 'W', 'Load bank on this line'),
    ],
  },
  {
    block: 'set',
    base: 200,
    stride: 40,
    most: 8,
    count: 'sets',
    fields: [
      read(
        'phase',
        'u16',
        1,
        '',
        'State: 0 off, 1 starting, 2 waiting, 3 joined, 4 island, 5 dark, 6 tripped, 7 empty',
      ),
      read('unitsSeen', 'u16', 1, '', 'Units that show themselves on'),
      read('modulesSeen', 'u16', 1, '', 'Modules that the host hears'),
      read('frequencyHz', 'u16', 0.01, 'Hz', 'Frequency of the backed-up side'),
      read('batteryV', 'u32', 0.01, 'V', 'Battery voltage'),
      read('batteryA', 's32', 0.01, 'A', 'Battery current; above 0 while it gives'),
      read('soc', 'u16', 0.01, '%', 'State of charge'),
      read('loadW', 's32', 1, 'W', 'Power of its backup outputs'),
      read('chargeW', 's32', 1, 'W', 'AC power that goes into the battery'),
      read('sunW', 's32', 1, 'W', 'Power of its strings'),
      read('transferMs', 'u16', 0.01, 'ms', 'Length of the last transfer to island'),
      read('returnS', 'u16', 0.1, 's', 'Time it watched the last source before it joined'),
      read('islandS', 'u32', 1, 's', 'Length of the last island, or of this one'),
      read('messages', 'u32', 1, '', 'What it reports, a bit each'),
      write('backup', 'u16', 1, '', 'Setting: backup output, 0 or 1'),
      write('chargeA', 'u16', 0.1, 'A', 'Setting: charge current of each unit'),
      write('count', 'u16', 1, '', 'Setting: units in the set'),
      write('clockSet', 'u16', 1, '', 'Setting: date and time, 0 or 1'),
      write('battery', 'u16', 1, '', 'Battery devices of the set, 0 or 1'),
      write('gridChargeW', 'u16', 1, 'W', 'Setting: charging of each unit from the grid'),
      write('generatorChargeW', 'u16', 1, 'W', 'Setting: charging of each unit at its generator port'),
      write('cutoff', 'u16', 0.01, '%', 'Setting: state of charge at which it stops'),
    ],
  },
  {
    block: 'unit',
    base: 600,
    stride: 20,
    most: 64,
    count: 'units',
    fields: [
      write('on', 'u16', 1, '', 'Its switch, 0 or 1'),
      read('address', 'u16', 1, '', 'Address on the parallel bus'),
      read('host', 'u16', 1, '', '1 for the host'),
      read('currentA', 'u32', 0.001, 'A', 'Output current'),
      read('powerW', 's32', 1, 'W', 'Output power'),
      read('batteryV', 'u32', 0.01, 'V', 'Voltage at its battery port'),
      read('batteryA', 's32', 0.01, 'A', 'Current at its battery port; above 0 while it takes'),
      read('firmware', 'u16', 1, '', '1 for the newest of the set, 0 for another'),
    ],
  },
  {
    block: 'module',
    base: 2000,
    stride: 10,
    most: 512,
    count: 'modules',
    fields: [
      read('voltageV', 'u32', 0.001, 'V', 'Voltage at its terminals'),
      read('currentA', 's32', 0.01, 'A', 'Current; above 0 while it gives'),
      read('soc', 'u16', 0.01, '%', 'State of charge'),
      read('warmC', 's16', 0.1, '°C', 'Temperature'),
      read('joined', 'u16', 1, '', '1 while it is on the bank'),
    ],
  },
  {
    block: 'generator',
    base: 7200,
    stride: 10,
    most: 8,
    count: 'generators',
    fields: [
      write('call', 'u16', 1, '', 'Called to run, 0 or 1'),
      read('phase', 'u16', 1, '', 'State: 0 off, 1 warming, 2 running'),
      read('powerW', 's32', 1, 'W', 'Power it gives'),
      read('frequencyHz', 'u16', 0.01, 'Hz', 'Its frequency'),
      read('litres', 'u32', 0.01, 'l', 'Fuel burnt'),
    ],
  },
  {
    block: 'instrument',
    base: 7300,
    stride: 4,
    most: 64,
    count: 'instruments',
    fields: [read('powerW', 's32', 1, 'W', 'Power as it reads it; above 0 towards the building')],
  },
  {
    block: 'circuit',
    base: 8000,
    stride: 4,
    most: 4000,
    count: 'circuits',
    fields: [
      write('on', 'u16', 1, '', 'Its contact, 0 or 1'),
      read('powerW', 's32', 1, 'W', 'Power it draws'),
    ],
  },
];

export const registersOf = (type: RegisterType): 1 | 2 => (type === 'u16' || type === 's16' ? 1 : 2);

/** A figure with its address: what a reader needs, also of a device of another make. */
export interface MapRow {
  /** As "unit.3.currentA". */
  readonly key: string;
  readonly address: number;
  readonly type: RegisterType;
  readonly scale: number;
  readonly unit: string;
  readonly access: 'read' | 'write';
  readonly meaning: string;
}

/** The rows of a block for so many things. */
export function rowsOfBlock({ block, base, stride, most, fields }: RegisterBlock, count: number): MapRow[] {
  return Array.from({ length: Math.min(count, most) }, (_, index) => {
    let address = base + index * stride;
    return fields.map(({ field, ...rest }): MapRow => {
      const row = {
        key: block === 'site' ? `site.${field}` : `${block}.${index + 1}.${field}`,
        address,
        ...rest,
      };
      address += registersOf(rest.type);
      return row;
    });
  }).flat();
}

const SITE = 'site';

/** The rows that say what there is to be read. */
export const siteRows = (): MapRow[] =>
  REGISTER_BLOCKS.filter(({ block }) => block === SITE).flatMap((block) => rowsOfBlock(block, 1));

/** All rows of a site, from the counts in its site block. */
export function rowsOfSite(values: Readonly<Record<string, number | null>>): MapRow[] {
  return REGISTER_BLOCKS.flatMap((block) =>
    rowsOfBlock(block, block.count === undefined ? 1 : (values[`${SITE}.${block.count}`] ?? 0)),
  );
}
