import { type Line } from '../values/quantities.ts';
import { withoutTouched } from '../design/firstValues.ts';
import { withItemDefaults } from '../design/itemDefaults.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import { boardCalled } from '../design/boards.ts';
import type { Circuit, Design, Item, Partition } from '../design/schema.ts';
import { readFigure } from '../words/figure.ts';
import type { BadRow } from './intervals.ts';
import { isEnergy, powerScale } from './loadWords.ts';
import {
  type ItemCells,
  LOAD_FIELDS,
  type LoadField,
  readItemCells,
  readLines,
  showField,
} from './loadFields.ts';

export type LoadMapping = Partial<Record<LoadField, number>>;

/** One thing that an import would do. */
export interface LoadChange {
  readonly row: number;
  readonly kind: 'new circuit' | 'new item' | 'changed' | 'same';
  readonly label: string;
  readonly details: string;
}

export interface LoadImport {
  readonly design: Design;
  readonly changes: readonly LoadChange[];
  /** Rows that are not taken. */
  readonly bad: readonly BadRow[];
  /** Cells of rows that are taken which could not be read: they stay not known. */
  readonly left: readonly BadRow[];
}

/** The survey as rows of text with a heading: one row for each item, one for a circuit with nothing on it. */
export function loadRows(design: Design): string[][] {
  const partitions = new Map(design.partitions.map((one) => [one.id, one.name]));
  const row = (circuit: Circuit, item: Item | undefined): string[] =>
    LOAD_FIELDS.map(({ field }) =>
      showField(field, circuit, item, partitions.get(circuit.partitionId ?? '') ?? ''),
    );
  return [
    LOAD_FIELDS.map(({ title }) => title),
    ...design.circuits.flatMap((circuit) =>
      circuit.items.length === 0
        ? [row(circuit, undefined)]
        : circuit.items.map((item) => row(circuit, item)),
    ),
  ];
}

function freeId(prefix: string, taken: Set<string>): string {
  let number = taken.size + 1;
  while (taken.has(`${prefix}${number}`)) number += 1;
  taken.add(`${prefix}${number}`);
  return `${prefix}${number}`;
}

interface CircuitCells {
  readonly lines?: Line[];
  /** The only line there is, where the cell says nothing: nobody has to say it. A cell that cannot be read says something. */
  readonly onlyLine?: readonly Line[];
  readonly partition?: Partition;
  readonly startDelayS?: number;
}

/** What a row says about its circuit, and what of it could not be read. */
function readCircuitCells(
  design: Design,
  cellOf: (field: LoadField) => string,
  ids: Set<string>,
): { readonly cells: CircuitCells; readonly left: readonly string[] } {
  const has = SUPPLY_LINES[design.site.supply ?? 'three-phase'];
  const left: string[] = [];
  const lines = readLines(cellOf('lines'), has);
  if (!lines.ok) left.push(`Lines: ${lines.reason}`);
  const wanted = cellOf('partition').trim();
  const partition = wanted === '' ? undefined : boardCalled(design, wanted, () => freeId('p', ids));
  if (wanted !== '' && partition === undefined)
    left.push(`Board: there is none called "${wanted.slice(0, 40)}"`);
  const delayText = cellOf('startDelayS').trim();
  const startDelayS = delayText === '' ? undefined : readFigure(delayText);
  const isDelay = startDelayS !== undefined && startDelayS >= 0 && startDelayS <= 3600;
  if (delayText !== '' && !isDelay)
    left.push(`Start delay s: "${delayText.slice(0, 30)}" is not a delay from 0 to 3600 s`);
  return {
    left,
    cells: {
      ...(!lines.ok || lines.value === undefined ? {} : { lines: lines.value }),
      ...(lines.ok && design.site.supply === 'single-phase' ? { onlyLine: has } : {}),
      ...(partition === undefined ? {} : { partition }),
      ...(isDelay ? { startDelayS } : {}),
    },
  };
}

function changedKeys(before: object, after: object): string[] {
  const old = new Map<string, unknown>(Object.entries(before));
  const words = (value: unknown): string => (value === undefined ? 'not known' : JSON.stringify(value));
  return Object.entries(after).flatMap(([key, value]) =>
    words(old.get(key)) === words(value) ? [] : [`${key} ${words(old.get(key))} to ${words(value)}`],
  );
}

/** The design while rows are being laid over it. */
class Importing {
  readonly circuits: Circuit[];
  partitions: readonly Partition[];
  readonly changes: LoadChange[] = [];
  /** Fields of new items that hold something nobody could read. */
  readonly unread = new Set<string>();
  private readonly byName: Map<string, number>;
  private readonly ids: Set<string>;

  constructor(design: Design) {
    this.circuits = [...design.circuits];
    this.partitions = design.partitions;
    this.byName = new Map(design.circuits.map((circuit, index) => [circuit.name.toLowerCase(), index]));
    this.ids = new Set(design.circuits.map((circuit) => circuit.id));
  }

  take(
    row: number,
    name: string,
    { partition, onlyLine, ...stated }: CircuitCells,
    itemName: string,
    { figures: item, unread }: ItemCells,
  ): void {
    const at = this.byName.get(name.toLowerCase());
    const before = at === undefined ? undefined : this.circuits[at];
    const cells = { ...stated, ...(partition === undefined ? {} : { partitionId: partition.id }) };
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
    const details = before === undefined ? [] : changedKeys(before, cells);
    const known = circuit.items.find((one) => one.name.toLowerCase() === itemName.toLowerCase());
    let items = circuit.items;
    if (itemName !== '') {
      const next: Item =
        known === undefined
          ? {
              ...(unread.has('quantity') ? {} : { quantity: 1 }),
              ...item,
              id: freeId('i', new Set(items.map((one) => one.id))),
              name: itemName,
            }
          : { ...known, ...item };
      if (known !== undefined) details.push(...changedKeys(known, item));
      items = known === undefined ? [...items, next] : items.map((one) => (one === known ? next : one));
    }
    const taken = items.find((one) => one.name.toLowerCase() === itemName.toLowerCase());
    if (taken !== undefined)
      for (const field of unread) this.unread.add(`circuits/${circuit.id}/items/${taken.id}/${field}`);
    const kind =
      before === undefined
        ? 'new circuit'
        : itemName !== '' && known === undefined
          ? 'new item'
          : details.length > 0
            ? 'changed'
            : 'same';
    this.changes.push({
      row,
      kind,
      label: itemName === '' ? name : `${itemName} (${name})`,
      details: details.join(', '),
    });
    const made = { ...circuit, items };
    if (at === undefined) {
      this.byName.set(name.toLowerCase(), this.circuits.length);
      this.circuits.push(made);
    } else this.circuits[at] = made;
  }
}

/**
 * Lays the rows of a sheet over a design: rows of one circuit name join, what has the same name is changed, the rest is
 * added. Nothing is deleted. A row that names something is taken; a cell of it that cannot be read is named and stays not known. Rows
 * are counted from `firstRow`; `heading` tells the unit of a power column.
 */
export function importLoadRows(
  design: Design,
  rows: readonly (readonly string[])[],
  mapping: LoadMapping,
  firstRow = 2,
  heading: readonly string[] = [],
): LoadImport {
  const importing = new Importing(design);
  const bad: BadRow[] = [];
  const left: BadRow[] = [];
  const powerAt = mapping.runningW;
  const scale = powerAt === undefined ? 1 : (powerScale(heading[powerAt] ?? '') ?? 1);
  let lastCircuit = '';
  rows.forEach((cells, index) => {
    const row = firstRow + index;
    const cellOf = (field: LoadField): string => {
      const at = mapping[field];
      return at === undefined ? '' : (cells[at] ?? '');
    };
    if (cells.every((cell) => cell.trim() === '')) return;
    // A sheet often names the circuit once and leaves the cells below it empty.
    const name = (cellOf('circuit').trim() || lastCircuit).slice(0, 120);
    const itemName = cellOf('item').trim().slice(0, 120);
    if (name === '' && itemName === '') {
      bad.push({ row, reason: 'names neither a circuit nor an item' });
      return;
    }
    const soFar = { ...design, partitions: [...importing.partitions] };
    const circuit = readCircuitCells(soFar, cellOf, new Set(importing.partitions.map(({ id }) => id)));
    const item = readItemCells(cellOf, () => scale);
    left.push(...[...circuit.left, ...item.left].map((reason) => ({ row, reason })));
    lastCircuit = name === '' ? itemName : name;
    importing.take(
      row,
      lastCircuit,
      circuit.cells,
      itemName === '' && Object.keys(item.figures).length > 0 ? lastCircuit : itemName,
      item,
    );
  });
  const laid = { ...design, circuits: importing.circuits, partitions: [...importing.partitions] };
  return {
    design: withItemDefaults(design, withoutTouched(design, laid), importing.unread),
    changes: importing.changes,
    bad,
    left,
  };
}

/** What is odd about a mapping: a power column whose heading speaks of energy. */
export function mappingWarnings(heading: readonly string[], mapping: LoadMapping): readonly string[] {
  const at = mapping.runningW;
  const title = at === undefined ? undefined : heading[at];
  return title !== undefined && isEnergy(title)
    ? [`"${title}" reads like an energy. Running power is wanted: W or kW, not kWh.`]
    : [];
}
