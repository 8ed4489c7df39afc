import { applyEdits } from '../../design/applyEdits.ts';
import { readDesign } from '../../design/read.ts';
import { bondingMends } from '../bonding.ts';
import { type Candidate, once, type Trouble } from './candidate.ts';

/** Room that is left when a thing is moved, m. */
const ROOM_M = 0.01;
/** How much further it is tried, step by step, m. */
const STEP_M = 0.1;
const STEPS = 8;

/** Bonds, interlocks and switches. */
export const bondings = ({ design, catalogue }: Trouble): Candidate[] =>
  bondingMends(design, catalogue).map(({ id, label, edits }) =>
    once(`bonding-${id}`, label, (draft) => {
      const applied = applyEdits(draft, edits);
      const read = applied.ok ? readDesign(applied.value, catalogue) : applied;
      return read.ok ? read.value : undefined;
    }),
  );

/** The thing is moved along the wall, or up and down, by what is short and then step by step; away from sun or wet in the same way. */
export function elsewhere({ cause, design }: Trouble): Candidate[] {
  const { worst } = cause;
  const isGap = worst.unit === 'm';
  const short = isGap ? (worst.limit ?? 0) - (worst.value ?? 0) + ROOM_M : STEP_M;
  const ids = [worst.subject.id, ...(worst.subject.about ?? []).map(({ id }) => id)];
  const things = (design.place?.mounted ?? []).filter(({ id }) => ids.includes(id));
  const by = (step: number): number =>
    Number((Math.ceil(short * 100) / 100 + (step - 1) * STEP_M).toFixed(2));
  const ways = [
    { key: 'xM', sign: 1, words: 'to the right' },
    { key: 'xM', sign: -1, words: 'to the left' },
    { key: 'yM', sign: -1, words: 'down' },
    { key: 'yM', sign: 1, words: 'up' },
  ] as const;
  return things.flatMap((thing) => {
    const stack = design.stacks.find(({ id }) => id === thing.stackId);
    const isPart = ({ id }: { readonly id: string }): boolean => id === thing.partId;
    const number =
      thing.part === 'unit'
        ? stack?.units.findIndex(isPart)
        : typeof stack?.bank === 'object'
          ? stack.bank.modules.findIndex(isPart)
          : undefined;
    const name =
      thing.name ?? (number === undefined || number < 0 ? thing.part : `${thing.part} ${number + 1}`);
    return ways.map(({ key, sign, words }): Candidate => ({
      id: `shift-${thing.id}-${key}${sign}`,
      title: (step) => `Move ${name} ${by(step)} m ${words}`,
      most: STEPS,
      make: (draft, step) =>
        draft.place === undefined
          ? undefined
          : {
              ...draft,
              place: {
                ...draft.place,
                mounted: draft.place.mounted.map((one) =>
                  one.id === thing.id
                    ? { ...one, [key]: Number((one[key] + sign * by(step)).toFixed(3)) }
                    : one,
                ),
              },
            },
    }));
  });
}
