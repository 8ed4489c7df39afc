import type { SheetColumn, SheetField, SheetGroup } from '../sheet.ts';

/** Short ways to write fields of a data sheet. */
export const figure = (key: string, label: string, unit = ''): SheetField => ({
  key,
  label,
  unit,
  holds: 'figure',
});
export const needed = (field: SheetField): SheetField => ({ ...field, isNeeded: true });
export const text = (key: string, label: string): SheetField => ({ key, label, holds: 'text' });
export const names = (key: string, label: string): SheetField => ({ key, label, holds: 'names' });
export const choice = (key: string, label: string, ...options: readonly string[]): SheetField => ({
  key,
  label,
  holds: 'choice',
  options,
});
export const choices = (key: string, label: string, options: readonly string[]): SheetField => ({
  key,
  label,
  holds: 'choices',
  options,
});
export const rows = (key: string, label: string, ...columns: readonly SheetColumn[]): SheetField => ({
  key,
  label,
  holds: 'rows',
  columns,
});
/** When the further figures of a table begin to matter, by its title. */
const ASKED: Readonly<Record<string, string>> = {
  Name: 'the parts list says what comes in the box',
  'Comms pins': 'cables of its buses are made or lengthened on site',
  Messages: 'the test says what is right, what goes away and what means stop',
  Terminals: 'conductors are held against terminals, and in the field pages',
  'Size and place': 'it gets a place on the wall, and by the delivery list',
  'AC output':
    'units stand in parallel, several outputs are used, bonds are walked, or loads take only a short break',
  'AC input': 'it charges from grid or generator, or passes power through to the backed-up board',
  'Battery side': 'a battery stands on it: starts, closed loops and shared banks',
  'PV inputs': 'strings are plugged into it',
  'Paralleling and setting up': 'there is more than one unit',
  Cells: 'modules share current, are joined one by one, or are charged in the cold',
  Currents: 'starts are held against it, and devices against its short circuit',
  'Joining and communication': 'modules are cabled to each other and to the inverter',
  Bar: 'the bank is joined on it',
  Meter: 'an inverter or a controller reads it',
  Sensor: 'it is clipped on',
  Device: 'starts, faults or residual currents are held against it',
  Controller: 'meters are wired to it',
  Output: 'its window, its neutral and its steps are held against the inverters',
  'Engine and site': 'it stands high or hot, fuel is planned, or a fault is looked at',
  Rating: 'its own limit is held against the load',
  'At 1000 W/m² and 25 °C': 'strings are planned',
  'With temperature': 'strings are planned',
  Switch: 'it transfers, and its neutral is walked',
};

export function group(title: string, where: string, ...fields: readonly SheetField[]): SheetGroup {
  const asked = ASKED[title];
  return { title, where, fields, ...(asked === undefined ? {} : { asked }) };
}

/** What every type has. */
export const NAMING = group(
  'Name',
  '',
  needed(text('name', 'Name')),
  text('note', 'Note'),
  names('inTheBox', 'What comes with one, comma between'),
);

export const TERMINALS = group(
  'Terminals',
  'installation chapter of the manual, one port a line',
  rows(
    'terminals',
    'Port : least mm² : most mm² : strip mm : torque Nm : ends : conductors : earth first (yes, no) : ferrite (yes, no) : cover Nm : earth least mm² : earth most mm² : earth Nm',
    { key: 'port', label: 'port', holds: 'text' },
    { key: 'minMm2', label: 'least mm²' },
    { key: 'maxMm2', label: 'most mm²' },
    { key: 'stripMm', label: 'strip mm' },
    { key: 'torqueNm', label: 'torque Nm' },
    { key: 'ends', label: 'ends', holds: 'names' },
    { key: 'mostConductors', label: 'conductors' },
    { key: 'earthFirst', label: 'earth first', holds: 'text' },
    { key: 'ferrite', label: 'ferrite', holds: 'text' },
    { key: 'coverTorqueNm', label: 'cover Nm' },
    { key: 'earthMinMm2', label: 'earth least mm²' },
    { key: 'earthMaxMm2', label: 'earth most mm²' },
    { key: 'earthTorqueNm', label: 'earth Nm' },
  ),
);

export const PINS = group(
  'Comms pins',
  'comms chapter of the manual, one port a line',
  rows(
    'commsPins',
    'Port : pin of + : pin of − : pin of ground : longest m',
    { key: 'port', label: 'port', holds: 'text' },
    { key: 'plus', label: 'pin of +', holds: 'text' },
    { key: 'minus', label: 'pin of −', holds: 'text' },
    { key: 'ground', label: 'pin of ground', holds: 'text' },
    { key: 'longestM', label: 'longest m' },
  ),
);

export const NETWORK: readonly SheetField[] = [
  choice('networkBy', 'Joins the network of the building by', 'cable', 'radio', 'either', 'none'),
  text('networkPort', 'Network socket'),
];

export const MESSAGES = group(
  'Messages',
  'commissioning and fault chapters, one message a line',
  rows(
    'messages',
    'Shown : at : right, clears or stop : gone by',
    { key: 'text', label: 'shown', holds: 'text' },
    { key: 'at', label: 'at', holds: 'text' },
    { key: 'means', label: 'means', holds: 'text' },
    { key: 'until', label: 'gone by', holds: 'text' },
  ),
);

export const MASS = figure('massKg', 'Mass', 'kg');

export const BODY = group(
  'Size and place',
  'dimension drawing and mounting chapter',
  MASS,
  figure('body.widthM', 'Width', 'm'),
  figure('body.heightM', 'Height', 'm'),
  figure('body.depthM', 'Depth', 'm'),
  choice('body.mount', 'Stands on', 'wall', 'floor'),
  figure('body.clearSidesM', 'Free at the sides', 'm'),
  figure('body.clearAboveM', 'Free above', 'm'),
  figure('body.clearBelowM', 'Free below', 'm'),
  figure('body.clearFrontM', 'Free in front', 'm'),
  figure('body.heightAboveFloorM.min', 'Lowest above the floor', 'm'),
  figure('body.heightAboveFloorM.max', 'Highest above the floor', 'm'),
  choice('body.wetRated', 'Protection', 'indoors', 'sheltered', 'outdoors'),
  figure('body.largestTiltDeg', 'Largest tilt', '°'),
  rows(
    'body.entries',
    'Entries: side : ⌀ mm : how many',
    { key: 'side', label: 'side', holds: 'text' },
    { key: 'diameterMm', label: 'diameter' },
    { key: 'count', label: 'how many' },
  ),
  rows(
    'body.drilling',
    'Holes: x m : y m : ⌀ mm',
    { key: 'xM', label: 'x' },
    { key: 'yM', label: 'y' },
    { key: 'diameterMm', label: 'diameter' },
  ),
);

export const CURVE: readonly SheetColumn[] = [
  { key: 'multiple', label: 'multiple of rated' },
  { key: 'maxS', label: 'seconds' },
];

export const LINES = choice('lines', 'Lines', '1', '2', '3');
