import {
  analyse,
  emptyDesign,
  generateProcedure,
  type ProcedureStep,
  type ReadingSpec,
  SAMPLE_TYPES,
} from '@bastion/core';
import { describe, expect, it } from 'vitest';
import { figureOf, pastAbort } from './LiveFigure.tsx';
import { proposalsOf } from './proposals.ts';

/** One unit with one module, and one circuit on its output. */
const design = emptyDesign('Small set');
Object.assign(design.site, {
  supply: 'single-phase',
  lineVoltageV: 230,
  frequencyHz: 50,
  codeProfile: 'metric',
});
design.partitions.push({ id: 'b', name: 'Backup output', kind: 'backup', stackId: 's' });
design.circuits.push({ id: 'c', name: 'Heat', lines: ['L1'], partitionId: 'b', items: [] });
design.stacks.push({
  id: 's',
  name: 'Stack',
  inverterTypeId: 'hybrid-5k-1ph',
  arrangement: 'one-unit',
  units: [{ id: 'u' }],
  bank: { batteryTypeId: 'lfp-51v-100ah', modules: [{ id: 'm' }] },
});
const analysis = analyse(design, SAMPLE_TYPES);
const stepOf = (id: string): ProcedureStep =>
  generateProcedure(analysis).steps.find((step) => step.id === id) ?? expect.fail(`No step ${id}.`);
const figures = {
  'line.1.voltageV': 229.87,
  'set.1.frequencyHz': 50.02,
  'set.1.transferMs': null,
  'set.1.islandS': 5400,
};

describe('what a device proposes for a step', () => {
  it('is what it can know, and nothing where it has no figure', () => {
    const found = proposalsOf(analysis.installation, stepOf('island-s'), {
      status: 'live',
      figures,
      trends: new Map(),
    });
    expect([...found].map(([id, { value }]) => [id, value])).toEqual([
      ['voltage-L1', 229.87],
      ['frequency', 50.02],
    ]);
  });

  it('comes in the unit of the reading, its trend too', () => {
    const trends = new Map([['set.1.islandS', [{ atMs: 1, value: 3600 }]]]);
    const found = proposalsOf(analysis.installation, stepOf('endurance-s'), {
      status: 'live',
      figures,
      trends,
    });
    expect(found.get('hours-run')).toEqual({ value: 1.5, points: [{ atMs: 1, value: 1 }] });
  });

  it.each(['off', 'joining', 'lost'] as const)('is nothing while the link is %s', (status) => {
    expect(
      proposalsOf(analysis.installation, stepOf('island-s'), { status, figures, trends: new Map() }).size,
    ).toBe(0);
  });
});

describe('an abort limit watched live', () => {
  const spec = (over: Partial<ReadingSpec> = {}): ReadingSpec => ({
    id: 'v',
    label: 'Voltage L1 to neutral',
    unit: 'V',
    kind: 'number',
    instrument: '',
    expected: { low: 216.2, high: 243.8 },
    abort: { low: 207, high: 253 },
    missing: [],
    ...over,
  });
  const { abort: _, ...unlimited } = spec();
  it.each<[string, ReadingSpec, number, string | undefined]>([
    ['inside', spec(), 230, undefined],
    ['outside what is expected, inside what aborts', spec(), 210, undefined],
    ['below', spec(), 206.99, 'Voltage L1 to neutral is 206.99 V, outside 207 to 253 V'],
    ['above', spec(), 253.1, 'Voltage L1 to neutral is 253.1 V, outside 207 to 253 V'],
    [
      'above, though what is expected cannot be worked out',
      spec({ missing: ['line voltage'] }),
      300,
      'Voltage L1 to neutral is 300 V, outside 207 to 253 V',
    ],
    ['without a limit', unlimited, 300, undefined],
  ])('%s', (_, one, value, sentence) => {
    expect(pastAbort(one, value)).toBe(sentence);
  });

  it('takes a figure to the digits of a register, not those of arithmetic', () => {
    expect(figureOf(229.869999999998)).toBe(229.87);
  });
});
