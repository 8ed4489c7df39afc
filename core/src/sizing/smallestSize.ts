import { tabulatedSizes } from '../codes/ampacity.ts';
import { judgeSize, strainOf } from './judgeSize.ts';
import type { ConductorQuestion, SizeAnswer, SizeTest } from './question.ts';

/** The smallest size that passes every test that can be made, and what makes it so large. */
export type Smallest =
  | {
      readonly kind: 'found';
      readonly areaMm2: number;
      readonly answers: readonly SizeAnswer[];
      /** The test that the next smaller size fails worst; undefined for the smallest size there is. */
      readonly governs: SizeTest | undefined;
    }
  | {
      readonly kind: 'too thick for its terminals';
      /** The smallest that carries, whatever the terminals take, mm². */
      readonly areaMm2: number;
      /** The thickest that goes into them, mm². */
      readonly mostMm2: number;
    }
  | { readonly kind: 'none' };

const BUT_FAULTS: ReadonlySet<SizeTest> = new Set([
  'load',
  'device',
  'overload',
  'terminal-column',
  'small-conductor',
  'parallel',
  'drop',
  'start-drop',
  'terminal',
]);

const isOver = ({ state }: SizeAnswer): boolean => state === 'over';

/** The test that a size fails worst; undefined where it fails none. */
export const worstOf = (answers: readonly SizeAnswer[]): SizeAnswer | undefined =>
  answers
    .filter(isOver)
    .reduce<SizeAnswer | undefined>(
      (worst, one) => (worst === undefined || strainOf(one) > strainOf(worst) ? one : worst),
      undefined,
    );

/** Tries the sizes of the tables from the smallest on; where none carries, or none that carries fits its terminals, it says so. */
export function smallestSize(
  question: ConductorQuestion,
  sizes: readonly number[] = tabulatedSizes(question.profile, question.laid.tables),
): Smallest {
  let before: readonly SizeAnswer[] | undefined;
  for (const areaMm2 of sizes) {
    // Faults are dear to work out, and only asked of a size that passes everything else.
    const cheap = judgeSize(question, areaMm2, BUT_FAULTS);
    const answers = cheap.some(isOver) ? cheap : judgeSize(question, areaMm2);
    // A size that no table knows carries nothing that could be promised.
    const carries = answers.some(({ test }) => test === 'load');
    if (carries && !answers.some(isOver))
      return {
        kind: 'found',
        areaMm2,
        answers,
        governs: before === undefined ? undefined : worstOf(before)?.test,
      };
    before = answers;
  }
  if (question.terminals.length === 0) return { kind: 'none' };
  const bare = smallestSize({ ...question, terminals: [] }, sizes);
  return bare.kind === 'found'
    ? {
        kind: 'too thick for its terminals',
        areaMm2: bare.areaMm2,
        mostMm2: Math.min(...question.terminals.map(({ maxMm2 }) => maxMm2)),
      }
    : { kind: 'none' };
}
