import { type Edit, type Json, sameJson } from './edits.ts';

const outcome = (edit: Edit): Json | undefined =>
  edit.op === 'set' ? edit.after : edit.op === 'insert' ? edit.entity : undefined;

/** One place that two people changed differently. `undefined` means "not there". */
export interface Conflict {
  readonly path: string[];
  readonly theirs: Json | undefined;
  readonly yours: Json | undefined;
}

const key = (path: readonly string[]): string => path.join('\u0000');

/** For every path: the last edit there, the last there or below, and the last that put the list there in order. */
function lastOf(edits: readonly Edit[]): Record<'at' | 'under' | 'order', Map<string, number>> {
  const last = {
    at: new Map<string, number>(),
    under: new Map<string, number>(),
    order: new Map<string, number>(),
  };
  edits.forEach(({ op, path }, index) => {
    if (op === 'order') {
      last.order.set(key(path), index);
      return;
    }
    last.at.set(key(path), index);
    path.forEach((_, depth) => last.under.set(key(path.slice(0, depth + 1)), index));
  });
  return last;
}

/** Where `yours` touches what `theirs` has changed since the two parted, unless both say the same. Grows with the two, not with their product. */
export function conflictsBetween(theirs: readonly Edit[], yours: readonly Edit[]): Conflict[] {
  const last = lastOf(theirs);
  const touched = ({ op, path }: Edit): Edit | undefined => {
    if (op === 'order') return theirs[last.order.get(key(path)) ?? -1];
    const above = path.map((_, depth) => last.at.get(key(path.slice(0, depth))) ?? -1);
    return theirs[Math.max(last.under.get(key(path)) ?? -1, ...above)];
  };
  return yours.flatMap((mine) => {
    const other = touched(mine);
    if (other === undefined) return [];
    const saysTheSame =
      other.op === mine.op && key(other.path) === key(mine.path) && sameJson(outcome(other), outcome(mine));
    return saysTheSame ? [] : [{ path: [...mine.path], theirs: outcome(other), yours: outcome(mine) }];
  });
}
