import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jsonSize, MOST_DEPTH, MOST_VALUES, sizeProblem } from './jsonSize.ts';

describe('the size of a JSON text', () => {
  it.each([
    ['7', 0, 0],
    ['[1, 2, 3]', 1, 3],
    ['{"a": {"b": [1, 2]}}', 3, 4],
    ['{"a,[{": "\\"]},"}', 1, 1],
    ['[[], [], {}]', 2, 6],
  ])('%s lies %i deep and holds %i', (text, depth, values) =>
    expect(jsonSize(text)).toEqual({ depth, values }),
  );

  it('does not depend on what strings say', () => {
    fc.assert(
      fc.property(fc.string(), (word) => {
        expect(jsonSize(JSON.stringify({ [word]: [word] }))).toEqual({ depth: 2, values: 2 });
      }),
    );
  });

  it.each([
    { name: 'as deep as may be', text: '['.repeat(MOST_DEPTH) + ']'.repeat(MOST_DEPTH), says: undefined },
    { name: 'one deeper', text: '['.repeat(MOST_DEPTH + 1) + ']'.repeat(MOST_DEPTH + 1), says: '41 deep' },
    { name: 'as many as may be', text: `[${'1,'.repeat(MOST_VALUES - 1)}1]`, says: undefined },
    { name: 'one more', text: `[${'1,'.repeat(MOST_VALUES)}1]`, says: '1,000,001 values' },
  ])('$name', ({ text, says }) =>
    says === undefined
      ? expect(sizeProblem(text)).toBeUndefined()
      : expect(sizeProblem(text)).toContain(says),
  );
});
