import { fillRange, hasHeadings, pasteBlock, pasteCircuits, readBlock, writeBlock } from './loads/paste.ts';
import { FIRST_VIEW, rowsOf } from './loads/tableView.ts';
import { drawnRows } from './loads/useRowWindow.ts';
import { tracksOf } from './partitions/tracks.ts';
import { snapTo } from './site/wallEdits.ts';
import { COLUMNS, type Row } from './loads/columns.ts';
import { commandOf, rangeBetween, within } from './loads/gridKeys.ts';
import { analyse, emptyDesign, readDesign, SAMPLE_TYPES } from '@bastion/core';
import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import { readNumber } from '../ui/readNumber.ts';
import {
  addCircuitAfter,
  addItemAfter,
  deleteRow,
  duplicateRow,
  newCircuit,
  newItem,
  settleSurvey,
} from './loads/rowEdits.ts';
import { addUsualPartitions, lanesOf, moveCircuits } from './partitions/lanes.ts';
import { addStack, setArrangement, setUnitCount } from './stack/stackEdits.ts';

describe('reading numbers as people type them', () => {
  it.each([
    ['230', 230],
    ['0,85', 0.85],
    [' 1 200.5 ', 1200.5],
    ['-12', -12],
    ['.5', 0.5],
    ['', undefined],
    ['12 kW', undefined],
    ['1e3', undefined],
    ['NaN', undefined],
  ])('%j is %s', (text, value) => expect(readNumber(text, '.')).toBe(value));

  it.each([
    ['6,000', 6000, 6],
    ['1,234,567.5', 1234567.5, undefined],
    ['1,200.5', 1200.5, undefined],
    // What cannot part thousands parts a fraction, wherever the person sits.
    ['0,125', 0.125, 0.125],
    ['12,50', 12.5, 12.5],
    ['1.200', 1.2, 1.2],
  ])('%j is %s where fractions are parted by a point, %s where by a comma', (text, point, comma) =>
    expect([readNumber(text, '.'), readNumber(text, ',')]).toEqual([point, comma]),
  );
});

describe('keys of the survey table', () => {
  const size = { row: 10, column: 13 };
  const press = (keys: string) => {
    const parts = keys.split('+');
    return {
      key: parts.at(-1) ?? '',
      ctrlKey: parts.includes('Ctrl'),
      metaKey: false,
      altKey: parts.includes('Alt'),
      shiftKey: parts.includes('Shift'),
    };
  };
  const at = { row: 4, column: 0 };

  it.each([
    ['ArrowDown', { kind: 'move', to: { row: 5, column: 0 }, extends: false }],
    ['ArrowLeft', { kind: 'move', to: { row: 4, column: 0 }, extends: false }],
    ['PageUp', { kind: 'move', to: { row: 0, column: 0 }, extends: false }],
    ['Ctrl+End', { kind: 'move', to: { row: 9, column: 12 }, extends: false }],
    ['Tab', { kind: 'move', to: { row: 4, column: 1 }, extends: false }],
    ['Shift+Tab', undefined],
    ['Enter', { kind: 'edit', text: undefined }],
    ['7', { kind: 'edit', text: '7' }],
    ['Delete', { kind: 'clear' }],
    ['Ctrl+Delete', { kind: 'delete' }],
    ['Shift+ArrowDown', { kind: 'move', to: { row: 5, column: 0 }, extends: true }],
    ['Ctrl+d', { kind: 'fill-down' }],
    ['Ctrl+Shift+D', { kind: 'duplicate' }],
    ['Ctrl+a', { kind: 'select-all' }],
    ['Alt+Enter', { kind: 'add-item' }],
    ['Alt+Shift+Enter', { kind: 'add-circuit' }],
    ['Ctrl+z', undefined],
    ['Escape', undefined],
  ])('%s', (keys, command) => expect(commandOf(press(keys), at, size)).toEqual(command));

  it('keeps the cell in hand inside a table that shrank', () => {
    expect(within({ row: 99, column: -1 }, size)).toEqual({ row: 9, column: 0 });
    expect(within({ row: 3, column: 3 }, { row: 0, column: 13 })).toEqual({ row: 0, column: 3 });
  });
});

describe('pasting from a spreadsheet', () => {
  const start = produce(emptyDesign('New'), (draft) => addCircuitAfter(draft, undefined, newCircuit(draft)));
  const [circuit] = start.circuits;
  const [item] = circuit?.items ?? [];
  if (circuit === undefined || item === undefined) throw new Error('A new circuit has an item.');
  const rows: Row[] = [
    { kind: 'circuit', circuit },
    { kind: 'item', circuit, item },
  ];

  it('lays the block over the rows and adds items for the lines past the end', () => {
    const block = readBlock('Fridge\t\t\t2\t150\t0,85\r\n"Lamp ""A"""\t\t\t4\t9\t0.9\r\n');
    const pasted = pasteBlock(start, rows, COLUMNS, { row: 1, column: 0 }, block);
    const settled = pasted.ok ? settleSurvey(start, pasted.design) : undefined;
    const items = settled?.circuits[0]?.items.map(({ id: _id, ...rest }) => rest);
    expect(items).toMatchObject([
      { name: 'Fridge', quantity: 2, runningW: 150, powerFactor: 0.85 },
      { name: 'Lamp "A"', quantity: 4, runningW: 9, powerFactor: 0.9 },
    ]);
    // What the block did not say comes from the library, and is marked as such.
    expect(items?.[0]).toMatchObject({ startClass: 'compressor', demandFactor: 0.5, hoursPerDay: 10 });
    expect(settled?.firstValues?.length).toBe(8);
  });

  it.each([
    {
      name: 'text in a number',
      text: '100\nmuch',
      at: { row: 1, column: 4 },
      says: 'Line 2: Each: "much" is not a number.',
    },
    {
      name: 'watts on a circuit',
      text: '100',
      at: { row: 0, column: 4 },
      says: 'Line 1: a circuit has no "Each" to take "100"',
    },
    {
      name: 'a page of lines',
      text: '1\n'.repeat(2500),
      at: { row: 1, column: 4 },
      says: '2500 lines are more than 2000',
    },
  ])('takes nothing over for $name, and names the line', ({ text, at, says }) => {
    const pasted = pasteBlock(start, rows, COLUMNS, at, readBlock(text));
    expect(pasted.ok ? '' : pasted.message).toContain(says);
  });
});

describe('the table as a spreadsheet', () => {
  const block = readBlock('Pump\tL1\t\t1\t900\nLight\tL2\tbackup\t4\t20\nOven\t\t\t1\t3000');
  const pasted = pasteCircuits(emptyDesign('New'), COLUMNS, block);
  if (!pasted.ok) throw new Error(pasted.message);
  const { design } = pasted;
  const names = (view: Partial<typeof FIRST_VIEW>): string[] =>
    rowsOf(design, { ...FIRST_VIEW, ...view })
      .filter((row) => row.kind === 'circuit')
      .map((row) => row.circuit.name);

  it('makes a circuit of each pasted line, with one thing on it', () => {
    expect(design.circuits.map(({ name, lines, items }) => [name, lines, items[0]?.runningW])).toEqual([
      ['Pump', ['L1'], 900],
      ['Light', ['L2'], 20],
      ['Oven', undefined, 3000],
    ]);
    // A word that means a board makes it where there is none.
    expect(design.partitions).toMatchObject([{ name: 'Backup output', kind: 'backup' }]);
    expect(design.circuits[1]?.partitionId).toBe(design.partitions[0]?.id);
    expect(readDesign(design, SAMPLE_TYPES).ok).toBe(true);
    const bad = pasteCircuits(design, COLUMNS, readBlock('A\tL1\nB\tL9'));
    expect(bad.ok ? '' : bad.message).toBe(
      'Nothing was pasted. Line 2: Line(s): "L9" names a line that this supply does not have (L1, L2, L3).',
    );
  });

  it.each([
    [{ sortKey: 'expected' }, ['Pump', 'Light', 'Oven']],
    [{ sortKey: 'partitionId' }, ['Light', 'Pump', 'Oven']],
    [{ sortKey: 'runningW' }, ['Light', 'Pump', 'Oven']],
    [{ sortKey: 'runningW', descending: true }, ['Oven', 'Pump', 'Light']],
    [{ sortKey: 'lines' }, ['Pump', 'Light', 'Oven']],
    [{ filter: 'LIGHT' }, ['Light']],
    [{ onlyMissing: true }, ['Pump', 'Light', 'Oven']],
  ])('shows %j as %j', (view, expected) => expect(names(view)).toEqual(expected));

  it('keeps the rows of circuits that did not change, so that they are not drawn again', () => {
    const next = produce(design, (draft) => {
      if (draft.circuits[0] !== undefined) draft.circuits[0].name = 'Other';
    });
    const [before, after] = [design, next].map((one) => rowsOf(one, FIRST_VIEW));
    expect(after?.[2]).toBe(before?.[2]);
    expect(after?.[0]).not.toBe(before?.[0]);
  });

  it('copies a range out as it came in, and fills one value into all cells that take it', () => {
    const rows = rowsOf(design, FIRST_VIEW);
    const range = rangeBetween({ row: 5, column: 4 }, { row: 1, column: 3 });
    expect(writeBlock(rows, COLUMNS, range)).toBe('1\t900\n\t\n4\t20\n\t\n1\t3000');
    const filled = produce(design, (draft) => void fillRange(draft, rows, COLUMNS, range, () => '2'));
    expect(filled.circuits.map(({ items }) => [items[0]?.quantity, items[0]?.runningW])).toEqual([
      [2, 2],
      [2, 2],
      [2, 2],
    ]);
  });

  it('knows a block with headings from one without', () => {
    expect(hasHeadings(readBlock('Circuit\tWatts\nA\t1'))).toBe(true);
    expect(hasHeadings(readBlock('Survey of a house\t\nAppliance\tWatts\nA\t1'))).toBe(true);
    expect(hasHeadings(block)).toBe(false);
  });
});

describe('the rows that are drawn of a long table', () => {
  it.each([
    ['in sight', 12, [10, 11, 12, 13], [10, 0, 0, 0]],
    ['above', 2, [2, 10, 11, 12, 13], [2, 7, 0, 0, 0]],
    ['below', 90, [10, 11, 12, 13, 90], [10, 0, 0, 0, 76]],
  ])('hold the row in hand when it is %s', (_, inHand, indices, gaps) => {
    const drawn = drawnRows({ from: 10, to: 14 }, 100, inHand);
    expect(drawn.map(({ index }) => index)).toEqual(indices);
    expect(drawn.map(({ gapBefore }) => gapBefore)).toEqual(gaps);
  });
});

describe('lanes to scale', () => {
  it('gives each line its stretch, circuits on several lines first and at the same place', () => {
    const base = emptyDesign('New');
    const load = (id: string, lines: ('L1' | 'L2' | 'L3')[], runningW: number) => ({
      id,
      name: id,
      lines,
      partitionId: 'g',
      items: [{ id: 'i', name: id, quantity: 1, runningW, powerFactor: 1, demandFactor: 1 }],
    });
    const design = {
      ...base,
      site: { supply: 'three-phase' as const, serviceRatingA: 10, lineVoltageV: 230 },
      partitions: [{ id: 'g', name: 'Grid', kind: 'grid' as const }],
      circuits: [load('a', ['L1'], 500), load('all', ['L1', 'L2', 'L3'], 900)],
    };
    const lanes = lanesOf(design);
    const [lane] = lanes;
    if (lane === undefined) throw new Error('There is a lane.');
    const tracks = tracksOf(analyse(design, SAMPLE_TYPES), lane, lanes);
    expect(tracks.map(({ endVa, limitVa }) => [endVa, limitVa])).toEqual([
      [800, 2300],
      [300, 2300],
      [300, 2300],
    ]);
    expect(tracks[0]?.segments.map(({ circuitId, fromVa }) => [circuitId, fromVa])).toEqual([
      ['all', 0],
      ['a', 300],
    ]);
  });

  it('never makes a line longer than its load, however circuits on several lines lie', () => {
    const base = emptyDesign('New');
    const load = (id: string, lines: ('L1' | 'L2' | 'L3')[], partitionId: string) => ({
      id,
      name: id,
      lines,
      partitionId,
      items: [{ id: 'i', name: id, quantity: 1, runningW: 600, powerFactor: 1, demandFactor: 1 }],
    });
    const design = {
      ...base,
      site: { supply: 'three-phase' as const },
      stacks: [{ id: 's', name: 'S', units: [{ id: 'u' }] }],
      partitions: [
        { id: 'b', name: 'Backup', kind: 'backup' as const, stackId: 's' },
        { id: 'c', name: 'Shed', kind: 'shed' as const, stackId: 's' },
      ],
      circuits: [
        load('x', ['L1', 'L2'], 'b'),
        load('y', ['L2', 'L3'], 'b'),
        load('z', ['L3'], 'b'),
        load('o', ['L1'], 'c'),
      ],
    };
    const lanes = lanesOf(design);
    const [lane] = lanes;
    if (lane === undefined) throw new Error('There is a lane.');
    const tracks = tracksOf(analyse(design, SAMPLE_TYPES), lane, lanes);
    // Between two of three lines 600 / √3 = 346.41 VA on each. L1: that + 600 of the other lane; L2: twice; L3: that + 600.
    expect(tracks.map(({ endVa }) => endVa.toFixed(2))).toEqual(['946.41', '692.82', '946.41']);
  });
});

describe('things on the wall', () => {
  const other = { xM: 1, yM: 1, widthM: 0.5, heightM: 0.5 };
  it.each([
    ['near an edge', { xM: 1.52, yM: 0.2 }, { xM: 1.5, yM: 0.2 }],
    ['right edge to left edge', { xM: 0.58, yM: 1.02 }, { xM: 0.6, yM: 1 }],
    ['else onto the grid', { xM: 2.331, yM: 0.274 }, { xM: 2.35, yM: 0.25 }],
  ])('snap %s', (_, at, to) => expect(snapTo({ ...at, widthM: 0.4, heightM: 0.4 }, [other])).toEqual(to));
});

describe('building a job from nothing', () => {
  const valid = (design: unknown): boolean => readDesign(design, SAMPLE_TYPES).ok;

  it('keeps a valid document at every step, and puts what is new where a person expects it', () => {
    const start = { ...emptyDesign('New'), site: { supply: 'three-phase' as const } };
    const steps: ((draft: typeof start) => void)[] = [
      (draft) => addCircuitAfter(draft, undefined, newCircuit(draft)),
      (draft) => {
        const [circuit] = draft.circuits;
        if (circuit !== undefined) addItemAfter(draft, { kind: 'circuit', circuit }, newItem());
      },
      (draft) => {
        const [circuit] = draft.circuits;
        if (circuit !== undefined) duplicateRow(draft, { kind: 'circuit', circuit });
      },
      addUsualPartitions,
      addStack,
      (draft) => {
        const [stack] = draft.stacks;
        if (stack === undefined) return;
        setArrangement(stack, 'three-phase-from-single', ['L1', 'L2', 'L3']);
        setUnitCount(stack, 6, ['L1', 'L2', 'L3']);
      },
    ];
    const end = steps.reduce((design, step) => {
      const next = produce(design, step);
      expect(valid(next)).toBe(true);
      return next;
    }, start);
    expect(end.circuits.map((circuit) => [circuit.name, circuit.items.length])).toEqual([
      ['New circuit', 2],
      ['New circuit (copy)', 2],
    ]);
    expect(end.partitions.map((partition) => partition.stackId)).toEqual([undefined, end.stacks[0]?.id]);
    expect(end.stacks[0]?.units.map((unit) => unit.line)).toEqual(['L1', 'L1', 'L2', 'L2', 'L3', 'L3']);
  });

  it('leaves the lines that somebody chose when units are taken away', () => {
    const stack = {
      id: 's',
      name: 'S',
      units: [
        { id: 'a', line: 'L3' as const },
        { id: 'b', line: 'L1' as const },
      ],
    };
    setUnitCount(stack, 1, ['L1', 'L2', 'L3']);
    expect(stack.units).toEqual([{ id: 'a', line: 'L3' }]);
  });

  it('shows unplaced circuits first, and an undo of a move is a move back', () => {
    const design = produce({ ...emptyDesign('New') }, (draft) => {
      addCircuitAfter(draft, undefined, newCircuit(draft));
      addUsualPartitions(draft);
    });
    expect(lanesOf(design).map((lane) => lane.kind)).toEqual(['undecided', 'grid', 'backup']);
    const moved = produce(design, (draft) =>
      moveCircuits(draft, new Set([draft.circuits[0]?.id ?? '']), draft.partitions[1]?.id),
    );
    expect(lanesOf(moved).map((lane) => [lane.kind, lane.circuits.length])).toEqual([
      ['grid', 0],
      ['backup', 1],
    ]);
    expect(
      produce(moved, (draft) => moveCircuits(draft, new Set([draft.circuits[0]?.id ?? '']), undefined)),
    ).toEqual(design);
    const [circuit] = design.circuits;
    expect(
      circuit === undefined
        ? []
        : produce(design, (draft) => deleteRow(draft, { kind: 'circuit', circuit })).circuits,
    ).toEqual([]);
  });
});
