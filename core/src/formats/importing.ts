import type { ItemCells } from './loadCells.ts';
import { LOAD_FIELDS, type LoadField } from './loadFields.ts';
import type { Circuit, Design, Item, Partition } from '../design/schema.ts';
import type { Line } from '../values/quantities.ts';

/** One thing that an import would do. */
export interface LoadChange {
  readonly row: number;
  readonly kind: 'new circuit' | 'new item' | 'changed' | 'same';
  readonly label: string;
  readonly details: string;
}

export interface CircuitCells {
  readonly lines?: Line[];
  /** The only line there is, where the cell says nothing: nobody has to say it. A cell that cannot be read says something. */
  readonly onlyLine?: readonly Line[];
  readonly partition?: Partition;
  readonly startDelayS?: number;
  readonly device?: NonNullable<Circuit['device']>;
}

/** An item of a circuit whose apparent power a row has stated. */
export interface Apparent {
  readonly row: number;
  readonly circuitId: string;
  readonly itemId: string;
  readonly va: number;
}

/** What a row names. */
export interface Named {
  readonly row: number;
  /** The circuit: undefined in a sheet that has no column of circuits, where each row is one. */
  readonly circuit: string | undefined;
  /** What hangs on it; empty where the row is of the circuit alone. */
  readonly item: string;
}

/** An id that is not taken yet; taken from now on. */
export function freeId(prefix: string, taken: Set<string>): string {
  let number = taken.size + 1;
  while (taken.has(`${prefix}${number}`)) number += 1;
  taken.add(`${prefix}${number}`);
  return `${prefix}${number}`;
}

const TITLES: ReadonlyMap<string, string> = new Map<LoadField | 'partitionId' | 'device', string>([
  ...LOAD_FIELDS.map(({ field, title }) => [field, title] as const),
  ['partitionId', 'Board'],
  ['device', 'Device'],
]);

const alike = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** Places by the name of what stands there, whatever its capitals. */
function placesByName(named: readonly (readonly [name: string, at: number])[]): Map<string, number[]> {
  const places = new Map<string, number[]>();
  for (const [name, at] of named) addPlace(places, name, at);
  return places;
}

function addPlace(places: Map<string, number[]>, name: string, at: number): void {
  const key = name.toLowerCase();
  places.set(key, [...(places.get(key) ?? []), at]);
}

/** The design while rows are being laid over it. */
export class Importing {
  readonly circuits: Circuit[];
  partitions: readonly Partition[];
  readonly changes: LoadChange[] = [];
  /** Fields of new items that hold something nobody could read. */
  readonly unread = new Set<string>();
  /** What is watts once the power factor of its item is known. */
  readonly apparent: Apparent[] = [];
  private readonly ids: Set<string>;
  private readonly byName: Map<string, number[]>;
  /** Circuits by what hangs on them before the sheet came. */
  private readonly byItem: Map<string, number[]>;
  /** How often the sheet has named each thing: a name that comes again means another thing of that name, in the order they stand in. */
  private readonly told = new Map<string, number>();

  /** The circuits as they were, and what the sheet has said of each since: its lines, and which of a name it spoke of last. */
  private readonly before: readonly Circuit[];
  private readonly linesTold = new Map<number, string>();
  private readonly lastPlace = new Map<string, number>();

  constructor(design: Design) {
    this.before = design.circuits;
    this.circuits = [...design.circuits];
    this.partitions = design.partitions;
    this.ids = new Set(design.circuits.map((circuit) => circuit.id));
    this.byName = placesByName(design.circuits.map(({ name }, at) => [name, at]));
    this.byItem = placesByName(
      design.circuits.flatMap(({ items }, at) => items.map(({ name }) => [name, at] as const)),
    );
  }

  /** How many rows before this one have named the same. */
  private count(...names: readonly string[]): number {
    const key = JSON.stringify(names.map((name) => name.toLowerCase()));
    const before = this.told.get(key) ?? 0;
    this.told.set(key, before + 1);
    return before;
  }

  /** Where the circuit of a row stands; -1 where it is new. */
  private home({ circuit, item }: Named, lines: readonly Line[] | undefined): number {
    if (circuit !== undefined) {
      const at = this.namedPlace(circuit, item, lines);
      const place = at === -1 ? this.circuits.length : at;
      this.lastPlace.set(circuit.toLowerCase(), place);
      if (lines !== undefined) this.linesTold.set(place, lines.join());
      return at;
    }
    const key = item.toLowerCase();
    const nth = this.count('circuit', item);
    // A sheet of things alone may be about things that hang on circuits of other names.
    return (this.byName.get(key) ?? this.byItem.get(key))?.[nth] ?? -1;
  }

  /**
   * Where a circuit stands that the sheet names. Rows of one name join, but what the sheet has put on one line is not moved by a later
   * row that says another: that is another circuit of the name. Several of a name are told apart by what hangs on them, then by their lines.
   */
  private namedPlace(circuit: string, item: string, lines: readonly Line[] | undefined): number {
    const places = this.byName.get(circuit.toLowerCase()) ?? [];
    const nth = this.count('hung', circuit, item);
    const hung = places.flatMap((at) =>
      (this.before[at]?.items ?? []).filter(({ name }) => alike(name, item)).map(() => at),
    )[nth];
    if (lines === undefined) return this.lastPlace.get(circuit.toLowerCase()) ?? hung ?? places[0] ?? -1;
    const wanted = lines.join();
    const open = places.filter((at) => (this.linesTold.get(at) ?? wanted) === wanted);
    return (
      open.find((at) => at === hung) ??
      open.find((at) => this.linesTold.has(at)) ??
      open.find((at) => this.circuits[at]?.lines?.join() === wanted) ??
      open[0] ??
      -1
    );
  }

  private words(value: unknown): string {
    if (value === undefined) return 'not known';
    if (Array.isArray(value)) return value.join('+');
    if (typeof value === 'object' && value !== null)
      return Object.entries(value)
        .map(([key, one]) => `${String(one)}${key === 'ratedA' ? ' A' : ''}`)
        .join(' ');
    if (typeof value === 'string') return this.partitions.find(({ id }) => id === value)?.name ?? value;
    return JSON.stringify(value);
  }

  /** What was read for something new, so that a figure that was misread is seen before it is taken. */
  private statedWords(stated: object): string[] {
    return Object.entries(stated).map(([key, value]) => `${TITLES.get(key) ?? key}: ${this.words(value)}`);
  }

  private changedWords(before: object, after: object): string[] {
    const old = new Map<string, unknown>(Object.entries(before));
    return Object.entries(after).flatMap(([key, value]) => {
      const [was, is] = [this.words(old.get(key)), this.words(value)];
      return was === is ? [] : [`${TITLES.get(key) ?? key}: ${was} to ${is}`];
    });
  }

  take(
    named: Named,
    { partition, onlyLine, device, ...stated }: CircuitCells,
    { figures, unread, apparentVa }: ItemCells,
  ): void {
    const at = this.home(named, stated.lines);
    const before = this.circuits[at];
    const name = before?.name ?? named.circuit ?? named.item;
    const cells = {
      ...stated,
      ...(partition === undefined ? {} : { partitionId: partition.id }),
      ...(device === undefined ? {} : { device: { ...before?.device, ...device } }),
    };
    if (partition !== undefined && !this.partitions.includes(partition))
      this.partitions = [...this.partitions, partition];
    const circuit: Circuit = {
      ...(before ?? {
        id: freeId('c', this.ids),
        name,
        ...(onlyLine === undefined ? {} : { lines: [...onlyLine] }),
        items: [],
      }),
      ...cells,
    };
    const details = before === undefined ? this.statedWords(cells) : this.changedWords(before, cells);
    const nth = this.count('item', circuit.id, named.item);
    const known = circuit.items.filter((one) => alike(one.name, named.item))[nth];
    details.push(...(known === undefined ? this.statedWords(figures) : this.changedWords(known, figures)));
    const { items, taken } =
      named.item === ''
        ? { items: circuit.items, taken: undefined }
        : withItem(circuit.items, known, named.item, { figures, unread });
    if (taken !== undefined && apparentVa !== undefined) {
      details.push(`${TITLES.get('runningVa') ?? ''}: ${apparentVa}`);
      this.apparent.push({ row: named.row, circuitId: circuit.id, itemId: taken.id, va: apparentVa });
    }
    if (taken !== undefined)
      for (const field of unread) this.unread.add(`circuits/${circuit.id}/items/${taken.id}/${field}`);
    const isNewItem = taken !== undefined && known === undefined;
    this.changes.push({
      row: named.row,
      kind:
        before === undefined
          ? 'new circuit'
          : isNewItem
            ? 'new item'
            : details.length > 0
              ? 'changed'
              : 'same',
      label: named.item === '' || alike(named.item, name) ? name : `${named.item} (${name})`,
      details: details.join(', '),
    });
    const made = { ...circuit, items };
    if (at === -1) {
      addPlace(this.byName, name, this.circuits.length);
      this.circuits.push(made);
    } else this.circuits[at] = made;
  }
}

/** The items of a circuit with what a row says of one: a new one, or one that is there. */
function withItem(
  items: readonly Item[],
  known: Item | undefined,
  name: string,
  { figures, unread }: Pick<ItemCells, 'figures' | 'unread'>,
): { readonly items: Item[]; readonly taken: Item } {
  const taken: Item =
    known === undefined
      ? {
          ...(unread.has('quantity') ? {} : { quantity: 1 }),
          ...figures,
          id: freeId('i', new Set(items.map((one) => one.id))),
          name,
        }
      : { ...known, ...figures };
  return {
    taken,
    items: known === undefined ? [...items, taken] : items.map((one) => (one === known ? taken : one)),
  };
}
