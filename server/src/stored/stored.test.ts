import { procedureFor, SAMPLE_TYPES } from '@bastion/core';
import { describe, expect, it } from 'vitest';
import { smallDesign } from '../testkit/harness.ts';
import { STORED_KINDS } from './kinds.ts';

const edit = { op: 'set', path: ['site', 'altitudeM'], after: 900 };
const item = { name: 'Pump', quantity: 1, runningW: 900, startClass: 'deep-pump' };
const summary = { worst: 'Fine.', counts: { over: 0, tight: 1, unknown: 2, within: 3 }, stage: 'Limits' };
const [type] = SAMPLE_TYPES;
const procedure: unknown = JSON.parse(JSON.stringify(procedureFor(smallDesign(), SAMPLE_TYPES)));

/** What each kind looks like in each format that was ever written, and what it is now. A step without an example fails. */
const EXAMPLES: Record<string, { readonly stored: unknown; readonly now: unknown }[]> = {
  'batch of edits': [
    { stored: [edit], now: { design: 6, edits: [edit] } },
    { stored: { design: 6, edits: [edit] }, now: { design: 6, edits: [edit] } },
  ],
  'equipment type': [type, type].map((one) => ({ stored: one, now: one })),
  'library item': [item, item].map((one) => ({ stored: one, now: one })),
  'test procedure': [procedure, procedure].map((one) => ({ stored: one, now: one })),
  'list of types in use': [['a'], ['a']].map((one) => ({ stored: one, now: one })),
  summary: [summary, summary].map((one) => ({ stored: one, now: one })),
};

describe.each(STORED_KINDS.map((kind) => ({ name: kind.name, kind })))('$name', ({ name, kind }) => {
  it('has an example of every format', () => expect(EXAMPLES[name]).toHaveLength(kind.steps.length + 1));

  it.each((EXAMPLES[name] ?? []).map((one, format) => ({ format, ...one })))(
    'of format $format is read',
    ({ format, stored, now }) => {
      const text = JSON.stringify(format === 0 ? stored : { format, value: stored });
      expect(kind.read(text)).toEqual({ ok: true, value: now });
    },
  );

  it.each([
    { name: 'a newer format', text: JSON.stringify({ format: 99, value: 1 }), says: 'format 99' },
    { name: 'half a text', text: '{"format":', says: 'damaged' },
    { name: 'another shape', text: '7', says: '' },
  ])('$name is told', ({ text, says }) =>
    expect(kind.read(text)).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringContaining(says) as string }],
    }),
  );
});
