import { applyEdits } from '../../design/edits.ts';
import { readDesign } from '../../design/read.ts';
import { bondingMends } from '../bonding.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

/** Room that is left when a thing is moved, m. */
const ROOM_M = 0.01;

/** Bonds, interlocks and switches. */
export const bondings = ({ design, catalogue }: Trouble): Candidate[] =>
  bondingMends(design, catalogue).map(({ id, label, edits }) =>
    once(`bonding-${id}`, label, (draft) => {
      const applied = applyEdits(draft, edits);
      const read = applied.ok ? readDesign(applied.value, catalogue) : applied;
      return read.ok ? read.value : undefined;
    }),
  );

/** The thing is moved along the wall, or up and down, by what is short. */
export function elsewhere({ cause, design }: Trouble): Candidate[] {
  const { worst } = cause;
  const short = (worst.limit ?? 0) - (worst.value ?? 0) + ROOM_M;
  const ids = [worst.subject.id, ...(worst.subject.about ?? []).map(({ id }) => id)];
  const things = (design.place?.mounted ?? []).filter(({ id }) => ids.includes(id));
  const by = Math.ceil(short * 100) / 100;
  const ways = [
    { key: 'xM', sign: 1, words: 'to the right' },
    { key: 'xM', sign: -1, words: 'to the left' },
    { key: 'yM', sign: -1, words: 'down' },
    { key: 'yM', sign: 1, words: 'up' },
  ] as const;
  return things.flatMap((thing) => {
    const number = design.stacks
      .find(({ id }) => id === thing.stackId)
      ?.units.findIndex(({ id }) => id === thing.partId);
    const name =
      thing.name ?? (thing.part === 'unit' && number !== undefined ? `unit ${number + 1}` : thing.part);
    return ways.map(({ key, sign, words }) =>
      once(`shift-${thing.id}-${key}${sign}`, `Move ${name} ${by} m ${words}`, (draft) =>
        draft.place === undefined
          ? undefined
          : {
              ...draft,
              place: {
                ...draft.place,
                mounted: draft.place.mounted.map((one) =>
                  one.id === thing.id ? { ...one, [key]: Number((one[key] + sign * by).toFixed(3)) } : one,
                ),
              },
            },
      ),
    );
  });
}
