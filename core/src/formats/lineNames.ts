import type { Line } from '../values/quantities.ts';
import type { ReadCell } from './readCell.ts';

/** The letters that lines are marked with here and there, each in the order of L1, L2, L3. */
const MARKS = ['RST', 'RYB', 'ABC', 'UVW', 'XY'] as const;

/** Which line a letter of a column of lines means. */
export type LineLetters = ReadonlyMap<string, Line>;

const ALL_OF_THREE = /^(ALL|(3|THREE|TRI)[\s-]*(~|Φ|P|PH|POLE|PHASES?))$/;
const ALL_OF_TWO = /^(ALL|BOTH|(2|TWO|DOUBLE)[\s-]*(P|POLE|LINES?|LEGS?)|240\s*V?)$/;

/** Whether a cell in capitals means all the lines there are. */
const namesAll = (cell: string, has: readonly Line[]): boolean =>
  (has.length === 3 && ALL_OF_THREE.test(cell)) || (has.length === 2 && ALL_OF_TWO.test(cell));

const parts = (text: string): readonly string[] => text.split(/[\s+,/&-]+/).filter((part) => part !== '');

/** The single letters of a cell: "RYB" as well as "R, Y". Undefined where it holds anything else. */
function lettersIn(cell: string): readonly string[] | undefined {
  const all = parts(cell);
  return all.every((part) => /^[A-Z]{1,3}$/.test(part))
    ? all.flatMap((part) => part.match(/[A-Z]/g) ?? [])
    : undefined;
}

/**
 * What the letters of a column of lines mean: all that stand in it decide, since a B alone is the second line where they are A, B, C and
 * the third where they are R, Y, B. A letter on which the ways of marking that fit do not agree means nothing.
 */
export function lettersOf(cells: readonly string[], has: readonly Line[]): LineLetters {
  const used = new Set(
    cells
      .map((cell) => cell.trim().toUpperCase())
      .filter((cell) => !namesAll(cell, has))
      .flatMap((cell) => lettersIn(cell) ?? []),
  );
  const fitting = MARKS.filter((marks) => {
    const here = marks.slice(0, has.length);
    return [...used].every((letter) => here.includes(letter));
  });
  const meaning = new Map<string, Line>();
  for (const letter of used) {
    const lines = new Set(fitting.map((marks) => has[marks.indexOf(letter)]));
    const [line] = lines;
    if (lines.size === 1 && line !== undefined) meaning.set(letter, line);
  }
  return meaning;
}

/** Cells of a column headed "Phases" count them where none of them is a 2: 1 of 3 says not which. */
export const countsPhases = (heading: string, cells: readonly string[]): boolean =>
  /^(no\.?|number|nr\.?)? *(of)? *phases$/i.test(heading.trim()) &&
  cells.some((cell) => cell.trim() === '3') &&
  cells.every((cell) => ['', '1', '3'].includes(cell.trim()));

/** "L1", "l1+l2", "1", "L1 L2 L3", "3ph", "both", "R", "RYB" as lines of a supply. */
export function readLines(
  text: string,
  has: readonly Line[],
  letters: LineLetters = lettersOf([text], has),
): ReadCell<Line[]> {
  const wanted = text.trim().toUpperCase();
  if (wanted === '') return { ok: true, value: undefined };
  if (namesAll(wanted, has)) return { ok: true, value: [...has] };
  const marks = lettersIn(wanted);
  const names = marks
    ? marks.map((letter) => letters.get(letter))
    : parts(wanted).map((part) => (/^\d$/.test(part) ? `L${part}` : part));
  const lines = has.filter((line) => names.includes(line));
  return lines.length === names.length
    ? { ok: true, value: lines }
    : {
        ok: false,
        reason: marks
          ? `"${text.trim()}" does not say which line of this supply it is (${has.join(', ')})`
          : `"${text.trim()}" names a line that this supply does not have (${has.join(', ')})`,
      };
}
