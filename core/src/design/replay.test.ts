import { expect, it } from 'vitest';
import type { Migration } from './migrate.ts';
import { replay } from './replay.ts';

const set = (path: string[], after: number) => ({ op: 'set' as const, path, after });
/** Watts become kilowatts, and the field is called otherwise. */
const steps: Migration[] = [
  {
    from: 1,
    name: 'Kilowatts',
    up: ({ powerW, ...rest }) => ({ ...rest, powerKw: Number(powerW) / 1000 }),
  },
];

it.each([
  { name: 'nothing on top stays as it was stored', batches: [], becomes: { format: 1, powerW: 500 } },
  {
    name: 'an edit of the same format finds its field',
    batches: [{ design: 1, edits: [set(['powerW'], 700)] }],
    becomes: { format: 1, powerW: 700 },
  },
  {
    name: 'the steps are taken between the two, once: 700 W are 0.7 kW, then 0.9',
    batches: [
      { design: 1, edits: [set(['powerW'], 700)] },
      { design: 2, edits: [set(['reserve'], 3)] },
      { design: 2, edits: [set(['powerKw'], 0.9)] },
    ],
    becomes: { format: 2, powerKw: 0.9, reserve: 3 },
  },
  {
    name: 'the steps are taken before an edit that came after them: 500 W are 0.5 kW',
    batches: [{ design: 2, edits: [set(['reserve'], 3)] }],
    becomes: { format: 2, powerKw: 0.5, reserve: 3 },
  },
])('$name', ({ batches, becomes }) =>
  expect(replay({ format: 1, powerW: 500 }, batches, steps)).toEqual({ ok: true, value: becomes }),
);

it('an edit of an older format than the document is told', () => {
  const read = replay({ format: 2 }, [{ design: 1, edits: [] }], steps);
  expect(read).toMatchObject({ ok: false, problems: [{ path: ['format'] }] });
});
