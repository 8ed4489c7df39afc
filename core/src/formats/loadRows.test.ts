import { describe, expect, it } from 'vitest';
import type { Design } from '../design/schema.ts';
import { SUPPLY_LINES } from '../design/references.ts';
import { baseDesign, heater } from '../testkit/designs.ts';
import { guessMapping } from './loadFields.ts';
import { lettersOf, readLines } from './lineNames.ts';
import { importLoadRows, loadRows } from './loadRows.ts';

const THREE = SUPPLY_LINES['three-phase'];
const SPLIT = SUPPLY_LINES['split-phase'];

const empty = (supply: NonNullable<Design['site']['supply']>): Design => {
  const design = baseDesign();
  return { ...design, site: { ...design.site, supply }, circuits: [] };
};
const brought = (design: Design, sheet: readonly (readonly string[])[]) => {
  const [titles = [], ...rows] = sheet;
  return importLoadRows(design, rows, guessMapping(titles), 2, titles);
};
const shown = ({ circuits }: Design) =>
  circuits.map(({ name, lines, items }) => [
    name,
    lines?.join('+'),
    items.map((one) => [one.name, one.runningW]),
  ]);

describe('a sheet without a column of circuits', () => {
  const sheet = [
    ['Load', 'Phase', 'No.', 'Power [kW]', 'Critical?'],
    ['Dust extractor', '3ph', '1', '3.0', 'no'],
    ['Compressor', 'L2', '1', '2,2', 'No'],
    ['Sockets', 'L1', '1', '1.5', 'yes'],
    ['Sockets', 'L3', '1', '0.5', 'x'],
  ];

  it('makes a circuit of each row, each on its own lines, and two of one name are two', () => {
    const found = brought(empty('three-phase'), sheet);
    expect(shown(found.design)).toEqual([
      ['Dust extractor', 'L1+L2+L3', [['Dust extractor', 3000]]],
      ['Compressor', 'L2', [['Compressor', 2200]]],
      ['Sockets', 'L1', [['Sockets', 1500]]],
      ['Sockets', 'L3', [['Sockets', 500]]],
    ]);
    expect(found.changes.map(({ kind, label }) => [kind, label])).toEqual(
      ['Dust extractor', 'Compressor', 'Sockets', 'Sockets'].map((name) => ['new circuit', name]),
    );
    expect([...found.bad, ...found.left]).toEqual([]);
    // What was read is told before it is taken.
    expect(found.changes[1]?.details).toBe('Lines: L2, Quantity: 1, Running W: 2200, Importance: could');
    // That something is not critical does not leave it off.
    expect(found.design.circuits.map(({ items }) => items[0]?.importance)).toEqual([
      'could',
      'could',
      'must',
      'must',
    ]);
  });

  it('brought again with other figures changes each in its place, and says so in words', () => {
    const first = brought(empty('three-phase'), sheet).design;
    const again = brought(
      first,
      sheet.map((row) => row.map((cell) => (cell === '0.5' ? '0.6' : cell === 'L2' ? 'L3' : cell))),
    );
    expect(again.design.circuits.length).toBe(4);
    expect(again.changes.map(({ kind, details }) => [kind, details])).toEqual([
      ['same', ''],
      ['changed', 'Lines: L2 to L3'],
      ['same', ''],
      ['changed', 'Running W: 500 to 600'],
    ]);
  });

  it('finds what hangs on a circuit of another name, and adds no second one', () => {
    const design: Design = {
      ...empty('single-phase'),
      circuits: [{ id: 'c1', name: 'Kitchen', lines: ['L1'], items: [heater('i1', { name: 'Kettle' })] }],
    };
    const found = brought(design, [
      ['Item', 'Watts'],
      ['kettle', '1800'],
    ]);
    expect(shown(found.design)).toEqual([['Kitchen', 'L1', [['Kettle', 1800]]]]);
  });
});

it('two things of one name on one circuit are both counted, go out and come back', () => {
  const found = brought(empty('single-phase'), [
    ['Circuit', 'Item', 'W', 'Board'],
    ['Kitchen', 'Socket', '1000', ''],
    ['', 'Socket', '500', ''],
    ['Hall', 'Socket', '200', ''],
    ['Kitchen', 'Lamp', '20', ''],
  ]);
  expect(shown(found.design)).toEqual([
    [
      'Kitchen',
      'L1',
      [
        ['Socket', 1000],
        ['Socket', 500],
        ['Lamp', 20],
      ],
    ],
    ['Hall', 'L1', [['Socket', 200]]],
  ]);
  const [head = [], ...rows] = loadRows(found.design);
  const back = importLoadRows(found.design, rows, guessMapping(head));
  expect(back.changes.map(({ kind }) => kind)).toEqual(['same', 'same', 'same', 'same']);
  expect(back.design).toEqual(found.design);
});

describe('circuits of one name', () => {
  const two = [
    ['Circuit', 'Lines', 'Item', 'W'],
    ['Sockets', 'L1', 'Sockets', '1500'],
    ['Sockets', 'L3', 'Sockets', '500'],
    ['', '', 'Heater', '900'],
    ['Sockets', 'L1', 'Lamp', '20'],
  ];
  const there = [
    [
      'Sockets',
      'L1',
      [
        ['Sockets', 1500],
        ['Lamp', 20],
      ],
    ],
    [
      'Sockets',
      'L3',
      [
        ['Sockets', 500],
        ['Heater', 900],
      ],
    ],
  ];

  it('on other lines are others: no load moves to another line', () =>
    expect(shown(brought(empty('three-phase'), two).design)).toEqual(there));

  it.each([
    ['on two lines', two],
    ['on one', two.map((row) => row.map((cell) => (cell === 'L3' ? 'L1' : cell)))],
    [
      'made of a sheet without circuits',
      [
        ['Item', 'Phase', 'W'],
        ['Tap', 'L1', '10'],
        ['Tap', 'L1', '20'],
      ],
    ],
  ])(
    '%s: go out and come back to where they were, and into an empty survey with the same load',
    (_, sheet) => {
      const { design } = brought(empty('three-phase'), sheet);
      const [head = [], ...rows] = loadRows(design);
      const back = importLoadRows(design, rows, guessMapping(head));
      expect(back.changes.every(({ kind }) => kind === 'same')).toBe(true);
      expect(back.design).toEqual(design);
      const load = ({ circuits }: Design) =>
        circuits
          .flatMap(({ lines, items }) =>
            items.map(({ name, runningW }) => `${lines?.join()} ${name} ${runningW}`),
          )
          .sort();
      expect(load(importLoadRows(empty('three-phase'), rows, guessMapping(head)).design)).toEqual(
        load(design),
      );
    },
  );

  it('that is there on another line is moved by a sheet that says so once', () => {
    const { design } = brought(empty('three-phase'), two.slice(0, 2));
    const moved = brought(design, [
      ['Circuit', 'Lines', 'Item', 'W'],
      ['Sockets', 'L2', 'Sockets', '1500'],
      ['Sockets', 'L2', 'Lamp', '20'],
    ]);
    expect(shown(moved.design)).toEqual([
      [
        'Sockets',
        'L2',
        [
          ['Sockets', 1500],
          ['Lamp', 20],
        ],
      ],
    ]);
  });
});

it.each([
  [['Room', 'Load (W)', 'Appliance'], { runningW: 1, item: 2 }],
  [['Load', 'Load (VA)', 'Hrs/day (h)'], { item: 0, runningVa: 1, hoursPerDay: 2 }],
  [['Thing', 'Load (kW)'], { runningW: 1 }],
  [['Load', 'Rated wattage (W, each)', 'Qty.'], { item: 0, runningW: 1, quantity: 2 }],
  [['Item', 'Energy (kWh)'], { item: 0 }],
])('%j', (titles, mapping) => expect(guessMapping(titles)).toEqual(mapping));

describe('figures as people write them', () => {
  const read = (title: string, ...cells: readonly string[]) => {
    const found = brought(empty('single-phase'), [
      ['Item', title, 'PF'],
      ...cells.map((cell, n) => [`Thing ${n}`, ...cell.split('|')]),
    ]);
    return [
      found.design.circuits.map(({ items }) => items[0]?.runningW),
      found.left.map(({ reason }) => reason),
    ];
  };

  it.each<[string, string[], (number | undefined)[]]>([
    // A unit that touches its figure: 2 W of a kettle is a thousandth of it.
    ['W', ['2kW', '2 kW', '350W', '2.2KW', '40 watts'], [2000, 2000, 350, 2200, 40]],
    ['Rated power (kW)', ['2', '0,35', '350 W'], [2000, 350, 350]],
    ['Power consumption [W]', ['2000'], [2000]],
    // The others of the sheet tell what the sign parts.
    ['W', ['1,200', '0.5'], [1200, 0.5]],
    ['W', ['1.200', '0,5'], [1200, 0.5]],
    ['W', ['1,200|0.85', '800|'], [1200, 800]],
    ['W', ['1,200,000.5', '2,400'], [1200000.5, 2400]],
    // S · cos φ: 1000 · 0.8 and 2.5 · 1000 · 0.9.
    ['VA', ['1000|0.8', '2.5 kVA|0.9'], [800, 2250]],
    ['kVA', ['2|0,5'], [1000]],
  ])('%s %j', (title, cells, watts) => expect(read(title, ...cells)).toEqual([watts, []]));

  it.each<[string, string[], string]>([
    ['W', ['1,200', '800'], 'Running W: "1,200" may be 1.2 or 1200'],
    ['W', ['1.200'], 'Running W: "1.200" may be 1.2 or 1200'],
    ['W', ['1,200', '0,5', '0.5'], 'Running W: "1,200" may be 1.2 or 1200'],
    ['W', ['12kWh'], 'Running W: "12kWh" is an energy, not a power'],
    ['W', ['2 hp'], 'Running W: "2 hp" is in hp, which Running W is not'],
    ['W', ['5 A'], 'Running W: "5 A" is in A, which Running W is not'],
    ['W', ['900 VA'], 'Running W: "900 VA" is in VA, which Running W is not'],
    ['VA', ['900'], 'Running VA: 900 says no watts without a power factor'],
    ['Amps', ['4'], 'Running VA: 920 says no watts without a power factor'],
  ])('%s %j is not guessed', (title, cells, reason) => {
    const [watts, left] = read(title, ...cells);
    expect(watts?.[0]).toBeUndefined();
    expect(left).toEqual([reason]);
  });

  it('times in their own units, and a workbook whose figures have no other sign than the point', () => {
    const rows = [['Pump', '1.234', '400 ms', '90 min', '2 s', '50 %']];
    const titles = ['Item', 'kW', 'Start s', 'Hours per day', 'Break ms', 'Demand'];
    const found = importLoadRows(empty('single-phase'), rows, guessMapping(titles), 2, titles, '.');
    expect(found.left).toEqual([]);
    expect(found.design.circuits[0]?.items[0]).toMatchObject({
      runningW: 1234,
      startDurationS: 0.4,
      hoursPerDay: 1.5,
      longestInterruptionMs: 2000,
      demandFactor: 0.5,
    });
  });
});

describe('a schedule of a panel', () => {
  const panel = [
    ['Ckt', 'Description', 'Poles', 'Breaker (A)', 'VA'],
    ['1,3', 'Range', '2', '50', '8000'],
    ['5', 'Lights', '1P', '15 A', '600'],
    ['7,9', 'Well pump', '2', 'C20', '1200'],
    ['11', 'Fan', '4', 'twenty', ''],
  ];

  it('says lines by poles, devices, and volt-amperes that the power factor of the thing makes watts', () => {
    const { design, left, changes } = brought(empty('split-phase'), panel);
    // Lights 600 VA · 0.95, a well pump 1200 VA · 0.75; of a range nobody knows it.
    expect(shown(design)).toEqual([
      ['Range', 'L1+L2', [['Range', undefined]]],
      ['Lights', undefined, [['Lights', 570]]],
      ['Well pump', 'L1+L2', [['Well pump', 900]]],
      ['Fan', undefined, [['Fan', undefined]]],
    ]);
    expect(design.circuits.map(({ device }) => device)).toEqual([
      { ratedA: 50 },
      { ratedA: 15 },
      { ratedA: 20, curve: 'C' },
      undefined,
    ]);
    expect(left.map(({ row, reason }) => [row, reason])).toEqual([
      [2, 'Running VA: 8000 says no watts without a power factor'],
      [5, 'Poles: "4" is no number of poles from 1 to 3'],
      [5, 'Device A: "twenty" is no rating of a device'],
    ]);
    expect(changes[2]?.details).toBe('Lines: L1+L2, Device: 20 A C, Running VA: 1200');
  });

  // 18.75 A · 240 V, 6 A · 120 V · 0.75; 3 · 230 V · 10 A · 0.8 = √3 · 400 V · 10 A · 0.8.
  it.each([
    ['split-phase', 120, ['Water heater', '240 V', '18.75', '', ''], 'L1+L2', 4500],
    ['split-phase', 120, ['Fridge', '115', '6', '', ''], undefined, 540],
    ['three-phase', 230, ['Saw', '', '10', '3', '0.8'], 'L1+L2+L3', 5520],
    ['three-phase', 230, ['Saw', '', '10', '2', '0.8'], undefined, 3187],
    ['single-phase', 230, ['Saw', '', '10', '', '0.8'], 'L1', 1840],
  ] as const)('amperes at %s %i V: %j', (supply, lineVoltageV, row, lines, watts) => {
    const design = empty(supply);
    design.site.lineVoltageV = lineVoltageV;
    const found = brought(design, [['Item', 'Voltage', 'Amps', 'Poles', 'PF'], row]);
    const [circuit] = found.design.circuits;
    expect(circuit?.lines?.join('+')).toBe(lines);
    expect(circuit?.items[0]?.runningW).toBeCloseTo(watts, 0);
    expect(found.left).toEqual([]);
  });

  it('amperes on lines that nobody has told say no power, and a library does not stand in', () => {
    const found = brought(empty('three-phase'), [
      ['Item', 'Amps', 'Voltage'],
      ['Water heater', '8', '400'],
      ['Fridge', '2', 'low'],
    ]);
    expect(found.design.circuits.map(({ items }) => items[0]?.runningW)).toEqual([undefined, undefined]);
    expect(found.left.map(({ reason }) => reason.slice(0, 28))).toEqual([
      'Running A: "8" says no power',
      'Voltage: "low" is no voltage',
      'Running A: "2" says no power',
    ]);
  });
});

describe('lines as people write them', () => {
  it.each([
    ['L1', THREE, ['L1']],
    [' l2 + l3 ', THREE, ['L2', 'L3']],
    ['1', THREE, ['L1']],
    ['3', THREE, ['L3']],
    ['3ph', THREE, ['L1', 'L2', 'L3']],
    ['3~', THREE, ['L1', 'L2', 'L3']],
    ['Three phase', THREE, ['L1', 'L2', 'L3']],
    ['all', THREE, ['L1', 'L2', 'L3']],
    ['RYB', THREE, ['L1', 'L2', 'L3']],
    ['Y', THREE, ['L2']],
    ['S/T', THREE, ['L2', 'L3']],
    ['B', SPLIT, ['L2']],
    ['A B', SPLIT, ['L1', 'L2']],
    ['240V', SPLIT, ['L1', 'L2']],
    ['2-pole', SPLIT, ['L1', 'L2']],
    ['', THREE, undefined],
  ] as const)('%s', (text, has, lines) => expect(readLines(text, has)).toEqual({ ok: true, value: lines }));

  it.each([
    ['L4', THREE],
    ['3ph', SPLIT],
    ['L3', SPLIT],
    // The second line where the others are A and C, the third where they are R and Y.
    ['B', THREE],
    ['Q', THREE],
    ['L1 somewhere', THREE],
  ] as const)('%s is not guessed', (text, has) => expect(readLines(text, has)).toMatchObject({ ok: false }));

  it('the whole column tells what a letter means', () => {
    expect(readLines('B', THREE, lettersOf(['R', 'B', 'Y'], THREE))).toMatchObject({ value: ['L3'] });
    expect(readLines('B', THREE, lettersOf(['A', 'B', 'L1'], THREE))).toMatchObject({ value: ['L2'] });
    expect(readLines('R', THREE, lettersOf(['R', 'A'], THREE))).toMatchObject({ ok: false });
    // "All" is a word, not three letters.
    expect(readLines('B', THREE, lettersOf(['R', 'B', 'all'], THREE))).toMatchObject({ value: ['L3'] });
  });

  it('a column that counts phases says which only where it says all', () => {
    const lines = (title: string, ...cells: readonly string[]) =>
      brought(empty('three-phase'), [
        ['Item', title, 'W'],
        ...cells.map((cell, n) => [`Thing ${n}`, cell, '100']),
      ]).design.circuits.map((one) => one.lines);
    expect(lines('Phases', '1', '3')).toEqual([undefined, ['L1', 'L2', 'L3']]);
    expect(lines('Phases', '1', '2', '3')).toEqual([['L1'], ['L2'], ['L3']]);
    expect(lines('Phase', '1', '3')).toEqual([['L1'], ['L3']]);
  });
});
