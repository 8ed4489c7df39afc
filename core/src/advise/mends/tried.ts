import { type Analysis, analyse } from '../../checks/analyse.ts';
import { analysisCauses, type Cause } from '../../checks/causes.ts';
import type { CheckContext } from '../../checks/check.ts';
import { limitModes } from '../../checks/runChecks.ts';
import type { EquipmentType } from '../../catalogue/schema.ts';
import { rereadDesign } from '../../design/read.ts';
import type { Design } from '../../design/schema.ts';
import { compile } from '../../installation/compile.ts';
import type { Installation } from '../../installation/installation.ts';
import { lazy } from '../../values/lazy.ts';

/** Causes of a whole design, counted: what is accepted or follows from another does not count. */
export type Counts = Readonly<Record<Cause['state'], number>>;

export function countsOf(analysis: Analysis): Counts {
  const counts = { over: 0, unknown: 0, tight: 0 };
  for (const { state, accepted, follows } of analysisCauses(analysis))
    if (!accepted && follows === undefined) counts[state] += 1;
  return counts;
}

/** Each mode of an installation whose findings are limits, as a check is asked about it. */
export const contextsOf = (installation: Installation): readonly CheckContext[] =>
  limitModes(installation).map((mode) => ({ installation, mode }));

/** A changed design with what follows from it, each worked out when it is first asked for. */
export interface Tried {
  readonly design: Design;
  readonly contexts: () => readonly CheckContext[];
  /** Undefined where the change makes no design. */
  readonly after: () => { readonly analysis: Analysis; readonly counts: Counts } | undefined;
}

/** So many are kept of one analysis: what several causes of it try. */
const MOST_KEPT = 64;

/** What a changed design has that the one before it has not. Equal for equal changes of one design. */
function changeOf(before: Design, after: Design): string {
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])] as (keyof Design)[];
  return JSON.stringify(
    keys
      .filter((key) => before[key] !== after[key])
      .sort()
      .map((key) => {
        const [was, is]: readonly unknown[] = [before[key], after[key]];
        return Array.isArray(was) && Array.isArray(is)
          ? [key, is.length, is.flatMap((one: unknown, at) => (one === was[at] ? [] : [at, one]))]
          : [key, is];
      }),
  );
}

interface Kept {
  readonly catalogue: readonly EquipmentType[];
  readonly tried: Map<string, Tried>;
}

const kept = new WeakMap<Analysis, Kept>();

function keptOf(analysis: Analysis, catalogue: readonly EquipmentType[]): Kept['tried'] {
  const before = kept.get(analysis);
  if (before?.catalogue === catalogue) return before.tried;
  const tried = new Map<string, Tried>();
  kept.set(analysis, { catalogue, tried });
  return tried;
}

/**
 * A changed design of an analysis, once for all who try the same change: many causes are cleared by one more module or one circuit less,
 * and each of them asks what it comes to.
 */
export function triedOf(analysis: Analysis, design: Design, catalogue: readonly EquipmentType[]): Tried {
  const known = keptOf(analysis, catalogue);
  const change = changeOf(analysis.design, design);
  const before = known.get(change);
  if (before !== undefined) return before;
  const made: Tried = {
    design,
    contexts: lazy(() => contextsOf(compile(design, catalogue))),
    after: lazy(() => {
      const read = rereadDesign(analysis.design, design, catalogue);
      if (!read.ok) return undefined;
      const after = analyse(read.value, catalogue);
      return { analysis: after, counts: countsOf(after) };
    }),
  };
  known.set(change, made);
  for (const oldest of known.keys()) {
    if (known.size <= MOST_KEPT) break;
    known.delete(oldest);
  }
  return made;
}
