import { describe, expect, it } from 'vitest';
import { decimalSignOf, isAmbiguous, readFigure } from '../words/figure.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { readDesign } from '../design/read.ts';
import { baseDesign, deepFreeze } from '../testkit/designs.ts';
import { readEspi } from './espi.ts';
import {
  type IntervalColumns,
  type IntervalResult,
  readIntervalRows,
  summariseIntervals,
} from './intervals.ts';
import { guessHeadingRow, guessMapping } from './loadFields.ts';
import { importLoadRows, loadRows, mappingWarnings } from './loadRows.ts';
import { guessDateOrder, readTimestamp } from './timestamps.ts';
import type { ZoneOffsetMin } from './zone.ts';

/** Central Europe in 2026: an hour ahead of UTC, two from 29 March 01:00 UTC to 25 October 01:00 UTC. */
const zone: ZoneOffsetMin = (utcMs) =>
  utcMs >= Date.UTC(2026, 2, 29, 1) && utcMs < Date.UTC(2026, 9, 25, 1) ? 120 : 60;
const columns: IntervalColumns = { time: 0, value: 1, unit: 'kWh', dateOrder: 'year-first', stamp: 'start' };
const good = (result: IntervalResult) => {
  if (!result.ok) throw new Error(result.message);
  return result.value;
};

describe('figures and times as people write them', () => {
  it.each([
    ['1.234,5', 1234.5],
    ['1,234.5', 1234.5],
    ["1'234", 1234],
    ['1,234,567', 1234567],
    ['1.234.567,8', 1234567.8],
    ['1234.500', 1234.5],
    ['12,34,567.8', 1234567.8],
    ['1,2,3', undefined],
    ['1,20.5', undefined],
    ['0,75', 0.75],
    ['-3', -3],
    ['', undefined],
    ['n/a', undefined],
  ])('%s is %s', (text, value) => expect(readFigure(text)).toBe(value));

  it('a figure that may be a thousand as well as a fraction is what the others of its sheet say', () => {
    expect(['1,200', '1.200', '12,345', '0.125', '1,2', '1200.000'].map(isAmbiguous)).toEqual([
      true,
      true,
      true,
      false,
      false,
      false,
    ]);
    expect(decimalSignOf(['1,200', '0.85', '3'])).toBe('.');
    expect(decimalSignOf(['1.200', '0,85'])).toBe(',');
    expect(decimalSignOf(['1,200,000'])).toBe('.');
    expect(decimalSignOf(['1,200', '7'])).toBeUndefined();
    expect(decimalSignOf(['0,5', '0.5'])).toBeUndefined();
    expect(['.', ','].map((sign) => readFigure('1,200', sign === '.' ? '.' : ','))).toEqual([1200, 1.2]);
    // What tells by itself is not bent by what its sheet says.
    expect(readFigure('2,2', '.')).toBe(2.2);
    expect(readFigure('0.5', ',')).toBe(0.5);
  });

  it.each([
    ['2026-03-01 00:30', 'year-first', Date.UTC(2026, 2, 1, 0, 30)],
    ['01.03.2026 00:30:00', 'day-first', Date.UTC(2026, 2, 1, 0, 30)],
    ['3/1/2026 12:30 AM', 'month-first', Date.UTC(2026, 2, 1, 0, 30)],
    ['2026-03-01 24:00', 'year-first', Date.UTC(2026, 2, 2)],
    ['30.02.2026 10:00', 'day-first', undefined],
    ['yesterday', 'day-first', undefined],
  ] as const)('%s (%s)', (text, order, ms) => {
    const read = readTimestamp(text, order);
    expect(read?.kind === 'local' ? read.localMs : undefined).toBe(ms);
  });

  it('reads a time with its own offset as an instant, and tells the order of a date from a day above 12', () => {
    expect(readTimestamp('2026-03-01T00:30:00+01:00', 'day-first')).toEqual({
      kind: 'instant',
      utcMs: Date.UTC(2026, 1, 28, 23, 30),
    });
    expect(guessDateOrder(['01/02/2026', '13/02/2026'])).toBe('day-first');
    expect(guessDateOrder(['01/02/2026', '02/13/2026'])).toBe('month-first');
    expect(guessDateOrder(['01/02/2026'])).toBeUndefined();
  });
});

describe('interval readings', () => {
  it('energies of a meter with thousands are read by the column', () => {
    const rows = ['1,200.5', '2,400', '900.0'].map((text, n) => [`2026-03-01 0${n}:00`, text]);
    const read = good(readIntervalRows(rows, columns, zone));
    expect(read.readings.map(({ watts }) => watts)).toEqual([1200500, 2400000, 900000]);
  });

  it('turns energy into power: 0.6 kWh in 15 minutes is 2400 W', () => {
    const rows = [
      ['2026-01-01 00:00', '0.6'],
      ['2026-01-01 00:15', '0.1'],
      ['2026-01-01 00:30', '0.2'],
    ];
    const read = good(readIntervalRows(rows, columns, zone));
    expect(read.readings.map((one) => one.watts)).toEqual([2400, 400, 800]);
    expect(read.intervalMin).toBe(15);
    expect(read.readings[0]?.startMs).toBe(Date.UTC(2025, 11, 31, 23));
    const atEnd = good(readIntervalRows(rows, { ...columns, stamp: 'end', unit: 'kW' }, zone));
    expect(atEnd.readings[0]).toEqual({ startMs: Date.UTC(2025, 11, 31, 22, 45), watts: 600 });
  });

  it('keeps both hours of the night the clock is put back, and names the hour that spring skips', () => {
    const autumn = ['01:30', '02:00', '02:30', '02:00', '02:30', '03:00'].map((time) => [
      `2026-10-25 ${time}`,
      '1',
    ]);
    const read = good(readIntervalRows(autumn, columns, zone));
    expect(read.readings.map((one) => (one.startMs - Date.UTC(2026, 9, 24, 23, 30)) / 1_800_000)).toEqual([
      0, 1, 2, 3, 4, 5,
    ]);
    expect([read.bad, read.repeated]).toEqual([[], 4]);
    const spring = ['01:30', '02:00', '03:00', '03:30', '04:00'].map((time) => [`2026-03-29 ${time}`, '1']);
    expect(good(readIntervalRows(spring, columns, zone, 2)).bad).toEqual([
      { row: 3, reason: '2026-03-29 02:00 does not exist: the clock is put forward in that hour' },
    ]);
  });

  it('keeps good rows and names each bad one', () => {
    const rows = [
      ['2026-01-01 00:00', '1'],
      ['2026-01-01 00:30', 'x'],
      ['noon', '1'],
      ['2026-01-01 01:00', '-2'],
      ['2026-01-01 01:30', '1'],
      ['2026-01-01 01:30', '1'],
      ['2026-01-01 02:00', '1'],
      ['', ''],
      ['2026-01-01 02:30', '1'],
    ];
    const read = good(readIntervalRows(rows, columns, zone));
    expect(read.bad.map((one) => one.row)).toEqual([2, 3, 4, 6]);
    expect(summariseIntervals(read, zone)).toMatchObject({ readings: 4, missing: 2, intervalMin: 30 });
  });

  it.each([
    ['nothing', [], 'no readings'],
    [
      'seven-minute steps',
      [
        ['2026-01-01 00:00', '1'],
        ['2026-01-01 00:07', '1'],
        ['2026-01-01 00:14', '1'],
      ],
      '15, 30 or 60',
    ],
    ['only rubbish', [['a', 'b']], 'Row 1'],
  ])('refuses %s', (_, rows, says) => {
    const read = readIntervalRows(rows, columns, zone);
    expect(read.ok ? '' : read.message).toContain(says);
  });

  it('sums up: peak, duration curve and the day of a season', () => {
    const rows = Array.from({ length: 48 }, (_, hour) => [
      `2026-07-${hour < 24 ? '01' : '02'} ${String(hour % 24).padStart(2, '0')}:00`,
      String(hour % 24),
    ]);
    const found = summariseIntervals(good(readIntervalRows(rows, columns, zone)), zone);
    expect(found.peakW).toBe(23000);
    expect(found.peakAt).toBe('2026-07-01T21:00:00.000Z');
    expect([found.durationW[0], found.durationW[100]]).toEqual([23000, 0]);
    expect(
      found.durationW.every((watts, index) => index === 0 || watts <= (found.durationW[index - 1] ?? 0)),
    ).toBe(true);
    expect(found.seasons).toHaveLength(1);
    expect(found.seasons[0]).toMatchObject({ season: 'summer' });
    expect(found.seasons[0]?.hourW[7]).toBe(7000);
    expect(
      summariseIntervals(good(readIntervalRows(rows, columns, zone)), zone, true).seasons[0]?.season,
    ).toBe('winter');
  });
});

describe('the open meter-reading standard', () => {
  const type = (uom: number, flow = 1, power = 0) =>
    `<ReadingType><flowDirection>${flow}</flowDirection><powerOfTenMultiplier>${power}</powerOfTenMultiplier><uom>${uom}</uom></ReadingType>`;
  const reading = (start: number, value: string, duration = 1800) =>
    `<ns:IntervalReading><ns:timePeriod><ns:duration>${duration}</ns:duration><ns:start>${start}</ns:start></ns:timePeriod><ns:value>${value}</ns:value></ns:IntervalReading>`;

  it('reads energy with its power of ten: 12 · 10² Wh in half an hour is 2400 W', () => {
    const read = good(
      readEspi(
        `<feed>${type(72, 1, 2)}<!-- note -->${reading(1800, '7')}${reading(0, '12')}${reading(3600, '')}</feed>`,
      ),
    );
    expect(read.readings).toEqual([
      { startMs: 0, watts: 2400 },
      { startMs: 1_800_000, watts: 1400 },
    ]);
    expect(read.bad).toEqual([{ row: 3, reason: 'has no value' }]);
  });

  it.each([
    ['two directions', `${type(72)}${type(72, 19)}${reading(0, '1')}`, '2 kinds of reading'],
    ['volts', `${type(29)}${reading(0, '1')}`, 'real energy (72)'],
    ['nothing', type(72), 'no interval readings'],
    ['five minutes', `${type(72)}${reading(0, '1', 300)}`, '15, 30 or 60'],
    ['definitions of its own', '<!DOCTYPE x [<!ENTITY a "b">]>', 'DOCTYPE'],
  ])('refuses %s', (_, text, says) => {
    const read = readEspi(text);
    expect(read.ok ? '' : read.message).toContain(says);
  });
});

describe('a sheet of loads', () => {
  const heading = ['Circuit', 'Phase', 'Load', 'Qty', 'Watts', 'PF', 'Start class', 'Priority', 'Remarks'];
  const mapping = guessMapping(heading);
  const design = deepFreeze(baseDesign());

  it('knows its columns by their headings, and leaves strange ones open', () =>
    expect(mapping).toEqual({
      circuit: 0,
      lines: 1,
      item: 2,
      quantity: 3,
      runningW: 4,
      powerFactor: 5,
      startClass: 6,
      importance: 7,
    }));

  it('adds, changes and leaves alone; a cell that cannot be read stays not known and is named', () => {
    const rows = [
      ['Kitchen', '1', 'Kettle', '1', '2', '1', 'steady', 'could', ''],
      ['', '', 'Fridge', '2', '150', '0,7', 'Compressor', 'must', 'joins the row above'],
      ['Heat', 'L1', 'Heater i1', '1', '2000', '1', '', '', 'changes what is there'],
      ['Heat', 'L1', '', '', '', '', '', '', 'says nothing new'],
      ['Pump', 'L4', 'Pump', '1', '100', '1', '', '', ''],
      ['Pump', 'L1', 'Pump', 'two', '100', '1', '', '', 'another of the same name'],
      ['Pump', 'L1', 'Pump', '1', '100', '1.4', '', '', ''],
      ['Pump', 'L1', 'Pump', '1', '100', '1', 'rocket', '', ''],
      ['', '', '', '', '', '', '', '', ''],
    ];
    const found = importLoadRows(design, rows, mapping);
    expect(found.changes.map((one) => [one.row, one.kind])).toEqual([
      [2, 'new circuit'],
      [3, 'new item'],
      [4, 'changed'],
      [5, 'same'],
      [6, 'new circuit'],
      [7, 'new item'],
      [8, 'new item'],
      [9, 'new item'],
    ]);
    expect(found.bad).toEqual([]);
    expect(found.left.map((one) => one.row)).toEqual([6, 7, 8, 9]);
    expect(found.left[2]?.reason).toBe('Power factor: 1.4 is outside what is possible');
    // Four pumps of one name are four pumps, each with what could be read of its row.
    const pumps = found.design.circuits.find((one) => one.name === 'Pump');
    expect(pumps?.lines).toEqual(['L1']);
    expect(pumps?.items.map((one) => [one.quantity, one.runningW, one.powerFactor])).toEqual([
      [1, 100, 1],
      [undefined, 100, 1],
      [1, 100, undefined],
      [1, 100, 1],
    ]);
    expect(found.changes[2]?.details).toBe('Running W: 2300 to 2000');
    // A row that is new has no figure in the place of one that could not be read.
    const only = importLoadRows(design, [['Fan', 'L1', 'Fan', 'two', '100', '1', '', '', '']], mapping);
    expect(only.design.circuits.find((one) => one.name === 'Fan')?.items[0]).not.toHaveProperty('quantity');
    const read = readDesign(found.design, SAMPLE_TYPES);
    expect(read.ok ? [] : read.problems).toEqual([]);
    expect(
      found.design.circuits.find((one) => one.name === 'Kitchen')?.items.map((one) => one.runningW),
    ).toEqual([2, 150]);
  });

  it('finds the headings below a title, and reads units, words and shares', () => {
    const sheet = [
      ['Survey of the practice', '', '', '', '', '', ''],
      ['', '', '', '', '', '', ''],
      ['Way', 'Description', 'P [kW]', 'cos φ', 'Type', 'Essential', 'Demand'],
      ['Cold', 'Vaccine fridge', '0,18', '0.75', 'compressor', 'critical', '60 %'],
      ['Light', 'Spots', '250 W', '1', 'halogen', 'nice to have', '1'],
      ['Water', 'Pump', '0.75', '0.8', 'borehole pump', 'non-essential', ''],
      ['Meter', 'Heating', '12 kWh', '1', 'heater', '1', ''],
    ];
    const at = guessHeadingRow(sheet);
    expect(at).toBe(2);
    const titles = sheet[at] ?? [];
    const found = importLoadRows(design, sheet.slice(at + 1), guessMapping(titles), at + 2, titles);
    const items = found.design.circuits.slice(1).flatMap((circuit) => circuit.items);
    expect(items.map((item) => [item.runningW, item.startClass, item.importance, item.demandFactor])).toEqual(
      [
        [180, 'compressor', 'must', 0.6],
        [250, 'cold-filament', 'could', 1],
        [750, 'deep-pump', 'could', 1],
        [undefined, 'steady', 'must', 1],
      ],
    );
    expect(found.left).toEqual([{ row: 7, reason: 'Running W: "12 kWh" is an energy, not a power' }]);
  });

  it('takes no power from a column of energy, and says so when one is chosen', () => {
    expect(guessMapping(['Item', 'kWh']).runningW).toBeUndefined();
    expect(mappingWarnings(['Item', 'Power kWh'], { item: 0, runningW: 1 })).toHaveLength(1);
    expect(mappingWarnings(['Item', 'Watts each'], { item: 0, runningW: 1 })).toEqual([]);
    expect(guessMapping(['Item', 'Watts each', 'Phase'])).toEqual({ item: 0, runningW: 1, lines: 2 });
  });

  it('goes out and comes back the same', () => {
    const [head = [], ...rows] = loadRows(design);
    const back = importLoadRows({ ...design, circuits: [] }, rows, guessMapping(head));
    expect(back.bad).toEqual([]);
    const again = loadRows(back.design).slice(1);
    expect(again).toEqual(rows);
    expect(importLoadRows(design, rows, guessMapping(head)).changes.every((one) => one.kind === 'same')).toBe(
      true,
    );
  });
});
