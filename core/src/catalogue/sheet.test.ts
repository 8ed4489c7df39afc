import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { readTypeFile, readTypeRows, typeRows } from '../formats/typeRows.ts';
import { typeQuestions } from './questions.ts';
import { SAMPLE_TYPES } from './samples.ts';
import { type EquipmentKind, equipmentType, type EquipmentType } from './schema.ts';
import { entriesOf, readSheetEntries, type SheetEntries, typeChanges } from './sheet.ts';
import { SHEETS } from './sheets.ts';

const sample = (id: string): EquipmentType => {
  const found = SAMPLE_TYPES.find((type) => type.id === id);
  if (found === undefined) throw new Error(`${id} is a sample.`);
  return found;
};
const read = (type: EquipmentType, over: SheetEntries = {}) =>
  readSheetEntries(type.kind, type, SHEETS[type.kind], { ...entriesOf(type, SHEETS[type.kind]), ...over });

describe('the sample catalogue', () => {
  it('has about thirty types or more, every kind, and an example of each arrangement', () => {
    expect(SAMPLE_TYPES.length).toBeGreaterThanOrEqual(30);
    expect(new Set(SAMPLE_TYPES.map((type) => type.kind))).toEqual(new Set(Object.keys(SHEETS)));
    const arrangements = SAMPLE_TYPES.flatMap((type) => (type.kind === 'inverter' ? type.arrangements : []));
    expect(new Set(arrangements).size).toBe(10);
    expect(new Set(SAMPLE_TYPES.map((type) => type.id)).size).toBe(SAMPLE_TYPES.length);
  });

  it.each(SAMPLE_TYPES.map((type) => [type.id, type] as const))(
    '%s is possible and raises no question',
    (_id, type) => {
      expect(equipmentType.safeParse(type).error?.issues ?? []).toEqual([]);
      expect(typeQuestions(type)).toEqual([]);
    },
  );

  it.each(SAMPLE_TYPES.map((type) => [type.id, type] as const))(
    '%s comes back from its form unchanged',
    (_id, type) => {
      expect(read(type)).toEqual({ ok: true, value: type });
    },
  );

  it('comes back from a sheet and from a file unchanged', () => {
    expect(readTypeRows(typeRows(SAMPLE_TYPES))).toEqual({ ok: true, value: [...SAMPLE_TYPES] });
    const file: unknown = JSON.parse(JSON.stringify({ format: 1, types: SAMPLE_TYPES }));
    expect(readTypeFile(file)).toEqual({ ok: true, value: [...SAMPLE_TYPES] });
  });
});

/** Every plain figure of a schema, dotted; lists count as one. */
function keysOf(schema: z.ZodType, before = ''): string[] {
  const inner = schema instanceof z.ZodOptional ? (schema.unwrap() as z.ZodType) : schema;
  if (!(inner instanceof z.ZodObject)) return [before];
  const shape = inner.shape as Record<string, z.ZodType>;
  return Object.entries(shape).flatMap(([key, value]) =>
    keysOf(value, before === '' ? key : `${before}.${key}`),
  );
}

const plainOf = (schema: unknown): unknown =>
  schema instanceof z.ZodOptional ? plainOf(schema.unwrap()) : schema;

/** What a row of a list holds, by the dotted key of the list. */
function rowKeysOf(schema: z.ZodType, key: string): string[] {
  let at: unknown = schema;
  for (const part of key.split('.')) {
    const inner = plainOf(at);
    at = inner instanceof z.ZodObject ? (inner.shape as Record<string, z.ZodType>)[part] : undefined;
  }
  const list = plainOf(at);
  const row = list instanceof z.ZodArray ? list.element : undefined;
  return row instanceof z.ZodObject ? Object.keys(row.shape) : [];
}

describe('data sheets', () => {
  it.each(equipmentType.options.map((option) => [option.shape.kind.value, option] as const))(
    '%s: the form has every figure of the schema, once, and no other',
    (kind: EquipmentKind, schema) => {
      const form = SHEETS[kind].flatMap(({ fields }) => fields.map(({ key }) => key));
      expect([...form, 'kind', 'id', 'version'].sort()).toEqual(keysOf(schema).sort());
    },
  );

  it.each(equipmentType.options.map((option) => [option.shape.kind.value, option] as const))(
    '%s: every list of the form has a column for each figure of its rows',
    (kind: EquipmentKind, schema) => {
      const lists = SHEETS[kind].flatMap(({ fields }) => fields).filter(({ holds }) => holds === 'rows');
      for (const { key, columns = [] } of lists)
        expect(columns.map((column) => column.key).sort(), key).toEqual(rowKeysOf(schema, key).sort());
    },
  );

  it.each([
    ['lfp-51v-100ah', { peakDischargeA: '30' }, 'peakDischargeA', 'must not be below the continuous'],
    ['lfp-51v-100ah', { minV: '53' }, 'minV', 'below nominalV'],
    ['lfp-51v-100ah', { capacityAh: '' }, 'capacityAh', 'Capacity is needed'],
    ['lfp-51v-100ah', { capacityAh: 'big' }, 'capacityAh', '“big” is not a figure'],
    [
      'lfp-51v-100ah',
      { capacityAh: '1,200' },
      'capacityAh',
      '“1,200” may be 1.2 or 1200: write it without the comma',
    ],
    ['lfp-51v-100ah', { openCircuit: '0 : 46\n0.5' }, 'openCircuit', 'is missing'],
    ['hybrid-5k-1ph', { overloadCurve: '0.9 : 60' }, 'overloadCurve', 'more than 1'],
    ['hybrid-5k-1ph', { overloadCurve: '1.5 : 10; 1.1 : 60' }, 'overloadCurve', 'rising order'],
    ['hybrid-5k-1ph', { lowVoltageTripV: '30' }, 'lowVoltageTripV', 'inside the battery window'],
    ['hybrid-5k-1ph', { ratedW: '6000' }, 'ratedW', 'not be above the rated VA'],
    ['hybrid-5k-1ph', { 'batteryWindowV.min': '70' }, 'batteryWindowV.min', 'min below max'],
    ['hybrid-5k-1ph', { 'pvInputs.mpptMaxV': '900' }, 'pvInputs.count', 'tracking window'],
    ['pv-430w', { vmpV: '39' }, 'vmpV', 'below the open-circuit voltage'],
  ])('%s with %j is refused at %s', (id, over, key, message) => {
    const result = read(sample(id), over);
    const found = result.ok ? [] : result.problems;
    expect(found.map((one) => one.path[0])).toContain(key);
    expect(found.map((one) => one.message).join(' ')).toContain(message);
  });

  it.each([
    ['lfp-51v-100ah', { continuousDischargeA: '250', peakDischargeA: '300' }, 'continuousDischargeA'],
    ['lfp-51v-100ah', { chargeMinC: '-20' }, 'chargeMinC'],
    ['lfp-51v-100ah', { internalMilliohm: '120' }, 'internalMilliohm'],
    ['hybrid-5k-1ph', { efficiency: '0.5' }, 'efficiency'],
    ['hybrid-5k-1ph', { maxDischargeA: '50' }, 'maxDischargeA'],
    ['diesel-20k-3ph', { regulation: '0.5' }, 'regulation'],
    ['pv-430w', { impA: '8' }, 'ratedW'],
  ])('%s with %j is questioned at %s', (id, over, key) => {
    const result = read(sample(id), over);
    if (!result.ok) throw new Error(JSON.stringify(result.problems));
    expect(typeQuestions(result.value).map((one) => one.path[0])).toContain(key);
  });

  it('reads rows pasted from a spreadsheet, with commas for points', () => {
    const result = read(sample('hybrid-5k-1ph'), { overloadCurve: '1,1\t60\n1,5\t10' });
    expect(result.ok && result.value.kind === 'inverter' && result.value.overloadCurve).toEqual([
      { multiple: 1.1, maxS: 60 },
      { multiple: 1.5, maxS: 10 },
    ]);
  });

  it('says what changed between two versions as the data sheet would', () => {
    const before = sample('lfp-51v-100ah');
    const after = read(before, { capacityAh: '105', internalMilliohm: '' });
    if (!after.ok) throw new Error('It is possible.');
    expect(
      typeChanges(before, after.value, SHEETS.battery).map(({ label, before: was, after: is }) => [
        label,
        was,
        is,
      ]),
    ).toEqual([
      ['Capacity', '100', '105'],
      ['Inner resistance', '12', ''],
    ]);
  });
});

describe('sheets of types', () => {
  const [heads = [], row = []] = typeRows([sample('lfp-51v-100ah')]);
  const changed = (key: string, text: string): string[] =>
    row.map((cell, at) => (heads[at] === key ? text : cell));
  it.each([
    [[heads.slice(1), row.slice(1)], 'no column kind'],
    [[heads, changed('kind', 'toaster')], 'no kind of equipment'],
    [[heads, row, changed('minV', '60')], 'below nominalV'],
    [
      [
        [...heads, 'ratedVa'],
        [...row, '5'],
      ],
      'not a figure of this kind',
    ],
  ])('are refused whole with the place', (rows, message) => {
    const result = readTypeRows(rows);
    expect(result.ok ? '' : result.problems.map((one) => one.message).join()).toContain(message);
  });
});
