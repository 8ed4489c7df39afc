import { type Line } from '../values/quantities.ts';
import { withoutTouched } from '../design/firstValues.ts';
import { withItemDefaults } from '../design/itemDefaults.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import { boardCalled } from '../design/boards.ts';
import type { Circuit, Design, Item } from '../design/schema.ts';
import { type Apparent, type CircuitCells, freeId, Importing, type LoadChange } from './importing.ts';
import { countByVoltage, readDevice, readPoles } from './deviceCells.ts';
import { countsPhases, type LineLetters, lettersOf, readLines } from './lineNames.ts';
import type { ReadCell } from './readCell.ts';
import { type DecimalSign, decimalSignOf, readFigure } from '../words/figure.ts';
import type { BadRow } from './intervals.ts';
import { isEnergy, powerScale } from './loadWords.ts';
import { figureAndUnit, NUMBERS, readItemCells, type SheetSigns, type VoltsThrough } from './loadCells.ts';
import { isExported, LOAD_FIELDS, type LoadField, showField } from './loadFields.ts';

export type LoadMapping = Partial<Record<LoadField, number>>;

export interface LoadImport {
  readonly design: Design;
  readonly changes: readonly LoadChange[];
  /** Rows that are not taken. */
  readonly bad: readonly BadRow[];
  /** Cells of rows that are taken which could not be read: they stay not known. */
  readonly left: readonly BadRow[];
}

const EXPORTED = LOAD_FIELDS.flatMap(({ field, title }) => (isExported(field) ? [{ field, title }] : []));

/** The survey as rows of text with a heading: one row for each item, one for a circuit with nothing on it. */
export function loadRows(design: Design): string[][] {
  const partitions = new Map(design.partitions.map((one) => [one.id, one.name]));
  const row = (circuit: Circuit, item: Item | undefined): string[] =>
    EXPORTED.map(({ field }) =>
      showField(field, circuit, item, partitions.get(circuit.partitionId ?? '') ?? ''),
    );
  return [
    EXPORTED.map(({ title }) => title),
    ...design.circuits.flatMap((circuit) =>
      circuit.items.length === 0
        ? [row(circuit, undefined)]
        : circuit.items.map((item) => row(circuit, item)),
    ),
  ];
}

/** The sign that parts fractions in the columns of figures of a sheet. */
function decimalIn(rows: readonly (readonly string[])[], mapping: LoadMapping): DecimalSign | undefined {
  const columns = [...NUMBERS].flatMap((field) => mapping[field] ?? []);
  return decimalSignOf(rows.flatMap((row) => columns.map((at) => figureAndUnit(row[at] ?? '').number)));
}

/** The lines that a sheet speaks of, read with what its whole column of lines says. */
interface LineColumn {
  readonly has: readonly Line[];
  readonly letters: LineLetters;
  readonly counts: boolean;
}

function lineColumn(
  design: Design,
  rows: readonly (readonly string[])[],
  heading: readonly string[],
  at: number | undefined,
): LineColumn {
  const has = SUPPLY_LINES[design.site.supply ?? 'three-phase'];
  const cells = at === undefined ? [] : rows.map((row) => row[at] ?? '');
  return {
    has,
    letters: lettersOf(cells, has),
    counts: at !== undefined && countsPhases(heading[at] ?? '', cells),
  };
}

/** What a cell of lines says. A column that counts phases says which lines only where it says all. */
function linesIn(text: string, { has, letters, counts }: LineColumn): ReadCell<Line[]> {
  if (!counts || has.length < 3) return readLines(text, has, letters);
  return { ok: true, value: text.trim() === '3' ? [...has] : undefined };
}

/** What a row says about its circuit, and what of it could not be read. */
function readCircuitCells(
  design: Design,
  cellOf: (field: LoadField) => string,
  ids: ReadonlySet<string>,
  column: LineColumn,
): {
  readonly cells: CircuitCells;
  readonly lineCount: number | undefined;
  readonly left: readonly string[];
} {
  const left: string[] = [];
  const poles = readPoles(cellOf('poles'));
  if (!poles.ok) left.push(`Poles: ${poles.reason}`);
  const volts = countByVoltage(cellOf('voltageV'), design.site.lineVoltageV, column.has.length);
  if (!volts.ok) left.push(`Voltage: ${volts.reason}`);
  const count = (poles.ok ? poles.value : undefined) ?? (volts.ok ? volts.value : undefined);
  const stated = linesIn(cellOf('lines'), column);
  const lines =
    stated.ok && stated.value === undefined && count === column.has.length
      ? { ok: true as const, value: [...column.has] }
      : stated;
  if (!lines.ok) left.push(`Lines: ${lines.reason}`);
  const device = readDevice(cellOf('deviceA'));
  if (!device.ok) left.push(`Device A: ${device.reason}`);
  const wanted = cellOf('partition').trim();
  const partition = wanted === '' ? undefined : boardCalled(design, wanted, () => freeId('p', new Set(ids)));
  if (wanted !== '' && partition === undefined)
    left.push(`Board: there is none called "${wanted.slice(0, 40)}"`);
  const delayText = cellOf('startDelayS').trim();
  const startDelayS = delayText === '' ? undefined : readFigure(delayText);
  const isDelay = startDelayS !== undefined && startDelayS >= 0 && startDelayS <= 3600;
  if (delayText !== '' && !isDelay)
    left.push(`Start delay s: "${delayText.slice(0, 30)}" is not a delay from 0 to 3600 s`);
  const isOnly = lines.ok && design.site.supply === 'single-phase';
  return {
    left,
    lineCount: (lines.ok ? lines.value?.length : undefined) ?? (isOnly ? 1 : count),
    cells: {
      ...(!lines.ok || lines.value === undefined ? {} : { lines: lines.value }),
      ...(isOnly ? { onlyLine: column.has } : {}),
      ...(device.ok && device.value !== undefined ? { device: device.value } : {}),
      ...(partition === undefined ? {} : { partition }),
      ...(isDelay ? { startDelayS } : {}),
    },
  };
}

/** V · I on one line, between two, or of three: VA for each ampere in the lines. */
function voltsThrough({ site }: Design, lineCount: number | undefined): VoltsThrough {
  const { lineVoltageV, supply } = site;
  if (lineVoltageV === undefined || supply === undefined || lineCount === undefined) return undefined;
  const between = supply === 'three-phase' ? Math.sqrt(3) : 2;
  return lineVoltageV * (lineCount === 2 ? between : lineCount);
}

/** Watts of what came in as apparent power, by the power factor that its item has now; what has none is told and stays not known. */
function withWatts(design: Design, apparent: readonly Apparent[], left: BadRow[]): Design {
  const stated = new Map(apparent.map((one) => [`${one.circuitId}/${one.itemId}`, one]));
  if (stated.size === 0) return design;
  const wattsOf = (circuit: Circuit, item: Item): Item => {
    const one = stated.get(`${circuit.id}/${item.id}`);
    if (one === undefined) return item;
    if (item.powerFactor !== undefined)
      return { ...item, runningW: Number((one.va * item.powerFactor).toPrecision(12)) };
    left.push({ row: one.row, reason: `Running VA: ${one.va} says no watts without a power factor` });
    return item;
  };
  const circuits = design.circuits.map((circuit) => ({
    ...circuit,
    items: circuit.items.map((item) => wattsOf(circuit, item)),
  }));
  left.sort((a, b) => a.row - b.row);
  return { ...design, circuits };
}

/**
 * Lays the rows of a sheet over a design: rows of one circuit name join, and in a sheet that names no circuits each row is one. What has
 * the same name is changed, the rest is added; a thing that the sheet names twice is there twice. Nothing is deleted. A row that names something is taken; a cell of it that cannot be read is named and stays not known. Rows
 * are counted from `firstRow`; `heading` tells the unit of a power column, `decimal` the sign of fractions where the kind of file tells it:
 * else the figures of the sheet do, and what may be a thousand as well as a fraction stays not known.
 */
export function importLoadRows(
  design: Design,
  rows: readonly (readonly string[])[],
  mapping: LoadMapping,
  firstRow = 2,
  heading: readonly string[] = [],
  decimal?: DecimalSign,
): LoadImport {
  const importing = new Importing(design);
  const bad: BadRow[] = [];
  const left: BadRow[] = [];
  const signs: SheetSigns = {
    decimal: decimal ?? decimalIn(rows, mapping),
    scaleOf: (field) => powerScale(heading[mapping[field] ?? -1] ?? '') ?? 1,
  };
  const column = lineColumn(design, rows, heading, mapping.lines);
  let lastCircuit: string | undefined;
  rows.forEach((cells, index) => {
    const row = firstRow + index;
    const cellOf = (field: LoadField): string => {
      const at = mapping[field];
      return at === undefined ? '' : (cells[at] ?? '');
    };
    if (cells.every((cell) => cell.trim() === '')) return;
    // A sheet often names the circuit once and leaves the cells below it empty.
    if (cellOf('circuit').trim() !== '') lastCircuit = cellOf('circuit').trim().slice(0, 120);
    const itemName = cellOf('item').trim().slice(0, 120);
    if (lastCircuit === undefined && itemName === '') {
      bad.push({ row, reason: 'names neither a circuit nor an item' });
      return;
    }
    const soFar = { ...design, partitions: [...importing.partitions] };
    const ids = new Set(importing.partitions.map(({ id }) => id));
    const circuit = readCircuitCells(soFar, cellOf, ids, column);
    const item = readItemCells(cellOf, signs, voltsThrough(design, circuit.lineCount));
    left.push(...[...circuit.left, ...item.left].map((reason) => ({ row, reason })));
    const isOfCircuit = itemName === '' && Object.keys(item.figures).length > 0;
    importing.take(
      { row, circuit: lastCircuit, item: isOfCircuit ? (lastCircuit ?? '') : itemName },
      circuit.cells,
      item,
    );
  });
  const laid = { ...design, circuits: importing.circuits, partitions: [...importing.partitions] };
  return {
    design: withWatts(
      withItemDefaults(design, withoutTouched(design, laid), importing.unread),
      importing.apparent,
      left,
    ),
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
