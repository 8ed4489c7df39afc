import { keepFirstValues, withFirstValues } from './firstValues.ts';
import { libraryItem } from './itemWords.ts';
import type { Circuit, Design, Item, StartClass } from './schema.ts';

interface ClassDefaults {
  readonly powerFactor: number;
  readonly longestInterruptionMs: number;
}

/**
 * What a thing is taken to be like while only its start class is known: its running power factor, and the break it takes. Heat and
 * whatever starts again by itself takes a minute; electronics ride on their capacitors for 20 ms; contactors drop out at 30 ms.
 */
const BY_CLASS: Record<StartClass, ClassDefaults> = {
  steady: { powerFactor: 1, longestInterruptionMs: 60_000 },
  'cold-filament': { powerFactor: 1, longestInterruptionMs: 1000 },
  electronic: { powerFactor: 0.95, longestInterruptionMs: 20 },
  transformer: { powerFactor: 0.9, longestInterruptionMs: 1000 },
  'soft-drive': { powerFactor: 0.96, longestInterruptionMs: 1000 },
  universal: { powerFactor: 0.95, longestInterruptionMs: 1000 },
  'split-phase-motor': { powerFactor: 0.7, longestInterruptionMs: 60_000 },
  'capacitor-motor': { powerFactor: 0.8, longestInterruptionMs: 60_000 },
  compressor: { powerFactor: 0.75, longestInterruptionMs: 60_000 },
  'deep-pump': { powerFactor: 0.75, longestInterruptionMs: 60_000 },
  'dol-3ph': { powerFactor: 0.85, longestInterruptionMs: 30 },
  'star-delta': { powerFactor: 0.86, longestInterruptionMs: 30 },
  'soft-start': { powerFactor: 0.86, longestInterruptionMs: 30 },
  welder: { powerFactor: 0.75, longestInterruptionMs: 1000 },
};

/** All of it at the peak, as long as nobody says otherwise. */
const FIRST_DEMAND = 1;

const FILLED = [
  'runningW',
  'powerFactor',
  'startClass',
  'demandFactor',
  'hoursPerDay',
  'longestInterruptionMs',
] as const;
type Filled = (typeof FILLED)[number];

/** What the library and the start class say of an item, field by field. */
function guessed(item: Item, isStated: (key: Filled) => boolean): Partial<Pick<Item, Filled>> {
  const meant = libraryItem(item.name);
  const known = meant?.item;
  const startClass = isStated('startClass') ? item.startClass : known?.startClass;
  const byClass = startClass === undefined ? undefined : BY_CLASS[startClass];
  // Where somebody has named another start class, the library speaks of another thing.
  const library = startClass === known?.startClass ? known : undefined;
  return {
    ...byClass,
    demandFactor: FIRST_DEMAND,
    ...(library === undefined ? {} : figuresOf(library, meant?.isWhole === true)),
  };
}

/** Power goes with it only where the name is the thing itself: a lamp of some kind has a size of its own. */
function figuresOf(item: Omit<Item, 'id'>, withPower: boolean): Partial<Pick<Item, Filled>> {
  return Object.fromEntries(
    FILLED.flatMap((key) =>
      item[key] === undefined || (key === 'runningW' && !withPower) ? [] : [[key, item[key]]],
    ),
  );
}

interface Place {
  readonly circuit: Circuit;
  readonly item: Item;
}

/** Items that are new, or whose name or start class a change has touched. */
function touchedItems(before: Design, after: Design): Place[] {
  const circuits = new Map(before.circuits.map((circuit) => [circuit.id, circuit]));
  return after.circuits.flatMap((circuit) => {
    const old = circuits.get(circuit.id);
    if (old === circuit) return [];
    const items = new Map(old?.items.map((item) => [item.id, item]));
    return circuit.items.flatMap((item) => {
      const was = items.get(item.id);
      return was?.name === item.name && was.startClass === item.startClass ? [] : [{ circuit, item }];
    });
  });
}

/**
 * Fills what nobody has stated of the items that a change has added, renamed or given another start class, from the library by their
 * name and from their start class. What is filled is marked; what was filled and is still marked follows the new name. `unread` names
 * fields ("circuits/c1/items/i1/powerFactor") that hold something nobody could read: those stay not known.
 */
export function withItemDefaults(
  before: Design,
  after: Design,
  unread: ReadonlySet<string> = new Set(),
): Design {
  const marks = new Set(after.firstValues?.map(({ id }) => id));
  const values: { path: string[]; value: unknown }[] = [];
  for (const { circuit, item } of touchedItems(before, after)) {
    const pathOf = (key: Filled): string[] => ['circuits', circuit.id, 'items', item.id, key];
    const idOf = (key: Filled): string => pathOf(key).join('/');
    const isStated = (key: Filled): boolean => item[key] !== undefined && !marks.has(idOf(key));
    for (const [key, value] of Object.entries(guessed(item, isStated)))
      if (isFilled(key) && !isStated(key) && !unread.has(idOf(key)))
        values.push({ path: pathOf(key), value });
  }
  if (values.length === 0) return after;
  return withFirstValues(cleared(after, new Set(values.map(({ path }) => path.join('/')))), values);
}

const isFilled = (key: string): key is Filled => FILLED.some((one) => one === key);

/** Empties fields that are about to be filled anew. */
function cleared(design: Design, ids: ReadonlySet<string>): Design {
  const circuits = design.circuits.map((circuit) => {
    const base = `circuits/${circuit.id}/items/`;
    const items = circuit.items.map((item) => {
      const keys = FILLED.filter((key) => item[key] !== undefined && ids.has(`${base}${item.id}/${key}`));
      if (keys.length === 0) return item;
      return Object.fromEntries(
        Object.entries(item).filter(([key]) => !keys.some((one) => one === key)),
      ) as Item;
    });
    return items.every((item, index) => item === circuit.items[index]) ? circuit : { ...circuit, items };
  });
  return keepFirstValues({ ...design, circuits }, ids);
}
