import { describe, expect, it } from 'vitest';
import { bandFigures, readingFigure } from './bandWords.ts';
import { alarmOf, blockedBy, SKIPPED, type TakenReading, verdictOfStep } from './passage.ts';
import type { Procedure, ProcedureStep, ReadingSpec } from './schema.ts';

const volts = (over: Partial<ReadingSpec> = {}): ReadingSpec => ({
  id: 'v',
  label: 'V',
  unit: 'V',
  kind: 'number',
  instrument: '',
  expected: { low: 216.2, high: 243.8 },
  abort: { low: 207, high: 253 },
  missing: [],
  ...over,
});
const stepOf = (
  id: string,
  section: ProcedureStep['section'],
  ...readings: ReadingSpec[]
): ProcedureStep => ({
  id,
  section,
  title: id,
  instructions: [],
  cautions: [],
  readings,
});
const procedure: Procedure = {
  format: 1,
  steps: [
    stepOf('gate', 'gates', { ...volts(), id: 'y', kind: 'confirmation' }),
    stepOf('island', 'island', volts(), { ...volts(), id: 'w' }),
    stepOf('load', 'load', volts()),
  ],
};
const taken = (
  stepId: string,
  readingId: string,
  value: number,
  over: Partial<TakenReading> = {},
): TakenReading => ({
  stepId,
  readingId,
  value,
  attempt: 1,
  note: '',
  ...over,
});
const gate = taken('gate', 'y', 1);

describe('what keeps the next steps shut', () => {
  it.each<{ name: string; readings: TakenReading[]; step: number | undefined; why?: string }>([
    { name: 'a gate that nobody has taken', readings: [], step: 0, why: 'gate' },
    { name: 'a gate that failed', readings: [taken('gate', 'y', 0)], step: 0, why: 'gate' },
    {
      name: 'a gate that failed, with a reason',
      readings: [taken('gate', 'y', 0, { note: 'agreed' })],
      step: undefined,
    },
    { name: 'a gate that is passed', readings: [gate], step: undefined },
    { name: 'past an abort limit', readings: [gate, taken('island', 'v', 190)], step: 1, why: 'abort' },
    { name: 'outside, and not past it', readings: [gate, taken('island', 'v', 210)], step: undefined },
    {
      name: 'corrected',
      readings: [gate, taken('island', 'v', 190), taken('island', 'v', 229)],
      step: undefined,
    },
    {
      name: 'a retest that is within',
      readings: [gate, taken('island', 'v', 190), taken('island', 'v', 230, { attempt: 2 })],
      step: undefined,
    },
    {
      name: 'a retest that is past it as well',
      readings: [gate, taken('island', 'v', 190), taken('island', 'v', 200, { attempt: 2 })],
      step: 1,
      why: 'abort',
    },
    {
      name: 'a retest that has not come to the reading that failed',
      readings: [gate, taken('island', 'v', 190), taken('island', 'w', 230, { attempt: 2 })],
      step: 1,
      why: 'abort',
    },
    {
      name: 'a reason for another reading',
      readings: [gate, taken('island', 'v', 190), taken('island', 'w', 245, { note: 'known' })],
      step: 1,
      why: 'abort',
    },
    {
      name: 'a reason to go on',
      readings: [gate, taken('island', 'v', 190, { note: 'meter on the wrong range' })],
      step: undefined,
    },
  ])('$name', ({ readings, step, why }) => {
    const blocked = blockedBy(procedure, readings);
    expect([blocked?.step, blocked?.why]).toEqual([step, why]);
  });

  it('a gate with a reason for one reading waits for the other', () => {
    const two = { ...procedure, steps: [stepOf('gate', 'gates', volts(), { ...volts(), id: 'w' })] };
    const first = taken('gate', 'v', 215, { note: 'agreed' });
    expect(blockedBy(two, [first])?.why).toBe('gate');
    expect(blockedBy(two, [first, taken('gate', 'w', 230)])).toBeUndefined();
  });

  it('has an alarm while a step is past its abort limit, gates or not', () => {
    expect(alarmOf(procedure, [taken('load', 'v', 190)])?.step).toBe(2);
    expect(alarmOf(procedure, [taken('load', 'v', 215)])).toBeUndefined();
  });
});

describe('figures of the record', () => {
  it.each([
    ['a band of 27.6 V', volts(), '216.2 to 243.8'],
    ['a band of 0.214 V about 52.55', volts({ expected: { low: 52.443, high: 52.657 } }), '52.443 to 52.657'],
    ['at most one', volts({ expected: { high: 1 } }), 'at most 1'],
    ['a large current', volts({ expected: { low: 4410, high: 4990 } }), '4410 to 4990'],
  ])('%s', (_, spec, words) => {
    const { abort: _abort, ...rest } = spec;
    expect(bandFigures(rest, rest.expected ?? {})).toBe(words);
  });

  it('a reading has every digit that the instrument showed', () => {
    expect([52.13, 229, 0.107, 0.1 + 0.2].map(readingFigure)).toEqual(['52.13', '229', '0.107', '0.3']);
  });
});

describe('a step that is skipped', () => {
  const [shut, island] = procedure.steps;
  const skip = (value: 0 | 1, note = 'No load bank on site'): TakenReading =>
    taken('island', SKIPPED, value, { note });
  it.each<[string, TakenReading[], string]>([
    ['with a reason', [skip(1)], 'skipped'],
    ['without one', [skip(1, ' ')], 'pending'],
    ['and taken up again', [skip(1), skip(0)], 'pending'],
    ['after half of it was read', [taken('island', 'v', 230), skip(1)], 'skipped'],
    ['though what was read is past its limit', [taken('island', 'v', 190), skip(1)], 'abort'],
    ['and then read whole', [skip(1), taken('island', 'v', 230), taken('island', 'w', 230)], 'within'],
  ])('%s', (_, readings, verdict) => {
    expect(verdictOfStep(island ?? expect.fail(), readings)).toBe(verdict);
  });

  it('is never a gate, and opens none', () => {
    const readings = [taken('gate', SKIPPED, 1, { note: 'No time' })];
    expect(verdictOfStep(shut ?? expect.fail(), readings)).toBe('pending');
    expect(blockedBy(procedure, readings)).toEqual({ step: 0, why: 'gate' });
  });
});
