import type { DeliveryTick } from '../design/delivery.ts';
import type { Edit, Json } from '../design/edits.ts';
import { leadSizeWords, readLeadSize } from '../codes/leadSizes.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import { fieldId } from './fieldId.ts';
import { lengthIn, lengthUnitOf, metresIn } from '../words/length.ts';
import { isAsWanted } from './readBack.ts';
import type { Cell, Column, Row, RowState, Schedule } from './table.ts';

type Key = 'part' | 'what' | 'planned' | 'found' | 'by' | 'verdict';

const COLUMNS: readonly Column<Key>[] = [
  { key: 'part', title: 'Part or cable' },
  { key: 'what', title: 'What' },
  { key: 'planned', title: 'As designed' },
  { key: 'found', title: 'As built' },
  { key: 'by', title: 'Noted by' },
  { key: 'verdict', title: 'Differs' },
];

/** What can be found otherwise on site, and how it goes into the design. */
interface Item {
  readonly id: string;
  readonly partIds: readonly string[];
  readonly part: string;
  readonly what: string;
  readonly planned: Cell;
  readonly same: (read: string) => boolean;
  /** The edit that makes the design say so; undefined where what was read cannot be understood, or is not the design's to say. */
  readonly edit: (read: string) => Edit | undefined;
  /** A figure as it is understood, with its unit; undefined where it cannot be. */
  readonly understood?: (read: string) => string | undefined;
}

/** An edit of one field with what stood there: without it, it could not be taken back. */
const set = (
  path: readonly (string | number)[],
  before: string | number | undefined,
  after: string | number,
): Edit => ({
  op: 'set',
  path: path.map(String),
  ...(before === undefined ? {} : { before }),
  after,
});

type Figures = Readonly<Partial<Record<'lengthM' | 'areaMm2', number>>>;

/** Where a lead that all modules or all units share is said to be another at one of them: at the module or unit itself. */
function ownLeadPath({ network }: Installation, line: CableLine): readonly (string | number)[] | undefined {
  const key = line.areaPath.at(-2);
  const stackPath = line.areaPath.slice(0, 2);
  if (!network.known || line.areaPath[2] !== 'bank' || line.areaPath.length !== 5) return undefined;
  const parts = line.ends.map(({ partId }) => network.value.parts.find(({ id }) => id === partId));
  const moduleId = parts.find((part) => part?.moduleId !== undefined)?.moduleId;
  const unitId = parts.find((part) => part?.unitId !== undefined)?.unitId;
  if (key === 'lead' && moduleId !== undefined) return [...stackPath, 'bank', 'modules', moduleId, 'lead'];
  return key === 'inverterLead' && unitId !== undefined
    ? [...stackPath, 'units', unitId, 'batteryLead']
    : undefined;
}

/** The edit of one figure of a cable; of a lead that is shared with others both figures, at the one that differs. */
function figureEdit(installation: Installation, line: CableLine, key: keyof Figures, value: number): Edit {
  const own = ownLeadPath(installation, line);
  const { lengthM, areaMm2 } = line;
  const stated = line[key];
  if (own === undefined)
    return set(
      key === 'lengthM' ? line.lengthPath : line.areaPath,
      stated.known ? stated.value : undefined,
      value,
    );
  // The one that differs had no lead of its own so far: nothing stood there.
  const before: Figures = {
    ...(lengthM.known ? { lengthM: lengthM.value } : {}),
    ...(areaMm2.known ? { areaMm2: areaMm2.value } : {}),
  };
  return { op: 'set', path: own.map(String), after: { ...before, [key]: value } };
}

/** How near a size has to be to count as the same: standard sizes lie further apart. */
const SAME_SIZE = 0.02;

function cableItems(installation: Installation): Item[] {
  const lines = cableLines(installation);
  if (!lines.known) return [];
  const unit = lengthUnitOf(installation.site);
  return lines.value
    .filter(({ lengthM, areaMm2 }) => lengthM.known || areaMm2.known)
    .flatMap((line): Item[] => {
      const about = {
        partIds: line.ends.map(({ partId }) => partId),
        part: line.label,
      };
      const { lengthM, areaMm2 } = line;
      return [
        ...(areaMm2.known
          ? [
              {
                ...about,
                id: `${line.id} size`,
                what: 'size',
                planned: leadSizeWords(areaMm2.value),
                same: (read: string): boolean => {
                  const size = readLeadSize(read, installation.site.codeProfile);
                  return size !== undefined && Math.abs(size / areaMm2.value - 1) <= SAME_SIZE;
                },
                edit: (read: string): Edit | undefined => {
                  const size = readLeadSize(read, installation.site.codeProfile);
                  return size === undefined ? undefined : figureEdit(installation, line, 'areaMm2', size);
                },
                understood: (read: string): string | undefined => {
                  const size = readLeadSize(read, installation.site.codeProfile);
                  return size === undefined ? undefined : leadSizeWords(size);
                },
              },
            ]
          : []),
        ...(lengthM.known
          ? [
              {
                ...about,
                id: `${line.id} length`,
                what: 'length',
                planned: `${Number(lengthIn(lengthM.value, unit).toFixed(2))} ${unit}`,
                same: (read: string): boolean => {
                  const metres = metresIn(read, unit);
                  return metres !== undefined && Math.abs(metres - lengthM.value) < 0.005;
                },
                edit: (read: string): Edit | undefined => {
                  const metres = metresIn(read, unit);
                  return metres === undefined || metres <= 0
                    ? undefined
                    : figureEdit(installation, line, 'lengthM', metres);
                },
                understood: (read: string): string | undefined => {
                  const metres = metresIn(read, unit);
                  return metres === undefined
                    ? undefined
                    : `${Number(lengthIn(metres, unit).toFixed(2))} ${unit}`;
                },
              },
            ]
          : []),
      ];
    });
}

/** A text of a thing: as read it is. */
const textItem = (
  about: Pick<Item, 'id' | 'partIds' | 'part' | 'what'>,
  planned: string | undefined,
  path: readonly string[],
): Item => ({
  ...about,
  planned: planned ?? null,
  same: (read) => planned !== undefined && isAsWanted(planned, read),
  edit: (read) => set(path, planned, read.trim()),
});

function partItems(installation: Installation): Item[] {
  return installation.stacks.flatMap(({ stack }) => {
    const named = installation.stacks.length > 1 ? ` of ${stack.name}` : '';
    const units = stack.units.flatMap((unit, index): Item[] => {
      const path = ['stacks', stack.id, 'units', unit.id];
      const about = { partIds: [`unit ${stack.id}/${unit.id}`], part: `unit ${index + 1}${named}` };
      const id = `unit ${stack.id}/${unit.id}`;
      return [
        textItem({ ...about, id: `${id} serial`, what: 'serial' }, unit.serial, [...path, 'serial']),
        textItem({ ...about, id: `${id} firmware`, what: 'firmware' }, unit.firmware, [...path, 'firmware']),
      ];
    });
    const modules = (typeof stack.bank === 'object' ? stack.bank.modules : [])
      .filter(({ fitted }) => fitted !== 'taken-out')
      .map((module, index) =>
        textItem(
          {
            id: `module ${stack.id}/${module.id} serial`,
            partIds: [`module ${stack.id}/${module.id}`],
            part: `module ${index + 1}${named}`,
            what: 'serial',
          },
          module.serial,
          ['stacks', stack.id, 'bank', 'modules', module.id, 'serial'],
        ),
      );
    return [...units, ...modules];
  });
}

/** Polarity of strings and battery leads: there is one right way, and no figure of the design changes with it. */
function polarityItems(installation: Installation): Item[] {
  return installation.arrays.flatMap(({ array }) =>
    (array.places ?? []).map((place): Item => ({
      id: `string ${array.id}/${place.id} polarity`,
      partIds: [`array ${array.id}`],
      part: `${array.name}, input ${place.input}`,
      what: 'string polarity',
      planned: '+ on +',
      same: (read) => isAsWanted('+ on +', read),
      edit: () => undefined,
    })),
  );
}

const itemsOf = (installation: Installation): Item[] => [
  ...cableItems(installation),
  ...partItems(installation),
  ...polarityItems(installation),
];

/** What is noted as built of a row. */
export const asBuiltId = (rowId: string): string => fieldId('b', rowId);

function verdictOf(item: Item, read: string): { readonly state: RowState; readonly words: string } {
  if (item.same(read)) return { state: 'within', words: 'as designed' };
  if (item.planned === null) return { state: 'within', words: 'not in the design yet' };
  if (item.what === 'string polarity')
    return { state: 'over', words: 'reversed: open the DC switch and mend it' };
  if (item.edit(read) === undefined) return { state: 'unknown', words: 'cannot be read as a figure' };
  const understood = item.understood?.(read);
  return {
    state: 'tight',
    // A bare number is a gauge in one region and an area in another: whoever typed it sees which.
    words:
      understood === undefined || understood === read.trim()
        ? 'differs from the design'
        : `differs from the design: taken as ${understood}`,
  };
}

/** What was designed beside what is there: sizes, lengths, firmware, serials, polarity of strings. */
export function asBuiltSchedule(
  installation: Installation,
  delivery: readonly DeliveryTick[] = [],
): Schedule<Key> {
  const ticks = new Map(delivery.map((tick) => [tick.id, tick]));
  return {
    kind: 'as-built',
    title: 'As built',
    columns: COLUMNS,
    rows: itemsOf(installation).map((item): Row<Key> => {
      const tick = ticks.get(asBuiltId(item.id));
      const read = tick?.read;
      const verdict = read === undefined ? undefined : verdictOf(item, read);
      return {
        id: item.id,
        partIds: item.partIds,
        ...(verdict === undefined ? {} : { state: verdict.state }),
        cells: {
          part: item.part,
          what: item.what,
          planned: item.planned,
          found: read ?? '',
          by: read === undefined ? '' : (tick?.by ?? ''),
          verdict: verdict?.words ?? '',
        },
      };
    }),
    notes: [
      'What differs is noted where it is seen; a designer takes it into the design, and sees first what it changes.',
    ],
  };
}

/** The edits that make the design say what was found on site, where that differs and can be said. */
export function asBuiltEdits(installation: Installation, delivery: readonly DeliveryTick[]): readonly Edit[] {
  const ticks = new Map(delivery.map((tick) => [tick.id, tick]));
  const byPath = new Map<string, Edit>();
  for (const item of itemsOf(installation)) {
    const read = ticks.get(asBuiltId(item.id))?.read;
    const edit = read === undefined || item.same(read) ? undefined : item.edit(read);
    if (edit?.op !== 'set') continue;
    const key = edit.path.join('/');
    byPath.set(key, joined(byPath.get(key), edit, item.what));
  }
  return [...byPath.values()];
}

const entriesOf = (edit: Edit | undefined): [string, Json][] | undefined => {
  const after = edit?.op === 'set' ? edit.after : undefined;
  return typeof after === 'object' && after !== null && !Array.isArray(after)
    ? Object.entries(after)
    : undefined;
};

/** Two figures of one lead are one edit: what the second says of the first is as designed, and does not undo it. */
function joined(before: Edit | undefined, edit: Edit, what: string): Edit {
  const [a, b] = [entriesOf(before), entriesOf(edit)];
  if (a === undefined || b === undefined || edit.op !== 'set') return edit;
  const key = what === 'length' ? 'lengthM' : 'areaMm2';
  return { ...edit, after: Object.fromEntries([...a, ...b.filter(([name]) => name === key)]) };
}
