import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jsonSize, MOST_DEPTH, MOST_FIELDS, MOST_VALUES, sizeProblem } from './jsonSize.ts';

const wide = (count: number): string =>
  JSON.stringify(Object.fromEntries(Array.from({ length: count }, (_, at) => [`f${at}`, at])));

describe('the size of a JSON text', () => {
  it.each([
    ['7', 0, 0, 0],
    ['[1, 2, 3]', 1, 3, 0],
    ['{"a": {"b": [1, 2]}}', 3, 4, 1],
    ['[{"a":1,"b":{"x":1},"c":3},{"d":1}]', 3, 7, 3],
    ['{"a,[{": "\\"]},"}', 1, 1, 1],
    ['[[], [], {}]', 2, 6, 0],
  ])('%s lies %i deep, holds %i, and has %i fields at most', (text, depth, values, fields) =>
    expect(jsonSize(text)).toEqual({ depth, values, fields }),
  );

  it('does not depend on what strings say', () => {
    fc.assert(
      fc.property(fc.string(), (word) => {
        expect(jsonSize(JSON.stringify({ [word]: [word] }))).toEqual({ depth: 2, values: 2, fields: 1 });
      }),
    );
  });

  it.each([
    { name: 'as deep as may be', text: '['.repeat(MOST_DEPTH) + ']'.repeat(MOST_DEPTH), says: undefined },
    { name: 'one deeper', text: '['.repeat(MOST_DEPTH + 1) + ']'.repeat(MOST_DEPTH + 1), says: '41 deep' },
    { name: 'as wide as may be', text: wide(MOST_FIELDS), says: undefined },
    { name: 'one wider', text: wide(MOST_FIELDS + 1), says: '501 fields' },
    { name: 'as many as may be', text: `[${'1,'.repeat(MOST_VALUES - 1)}1]`, says: undefined },
    { name: 'one more', text: `[${'1,'.repeat(MOST_VALUES)}1]`, says: '1,000,001 values' },
  ])('$name', ({ text, says }) =>
    says === undefined
      ? expect(sizeProblem(text)).toBeUndefined()
      : expect(sizeProblem(text)).toContain(says),
  );
});
