import { uniquePaths } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { compareFindings, subjectKey } from './finding.ts';
import type { RegisteredFinding } from './registry.ts';

const keyOf = ({ check, mode, subject }: RegisteredFinding): string =>
  `${check}\n${mode}\n${subjectKey(subject)}`;

const stands = ({ state }: RegisteredFinding): boolean => state === 'within' || state === 'tight';

/** A finding whose limit stands or falls with the places that are missing. */
const heldBack = (finding: RegisteredFinding, places: readonly Path[]): RegisteredFinding => ({
  ...finding,
  state: 'unknown',
  margin: undefined,
  missing: uniquePaths([...finding.missing, ...places]),
});

function byKey(findings: readonly RegisteredFinding[]): ReadonlyMap<string, readonly RegisteredFinding[]> {
  const kept = new Map<string, RegisteredFinding[]>();
  for (const finding of findings) {
    const same = kept.get(keyOf(finding));
    if (same === undefined) kept.set(keyOf(finding), [finding]);
    else same.push(finding);
  }
  return kept;
}

/** What would be found if one output took all that is not placed. */
export interface MayBe {
  readonly findings: readonly RegisteredFinding[];
  /** On a board that the design has not: what is found of that board is not about the design. */
  readonly isOnNewBoard: boolean;
}

/**
 * Findings of a design whose circuits are not all placed: a limit that would not stand with all of them on an output does not stand
 * here, it is not known; one that holds even so is left as it is. Worst first, as they came.
 */
export function withOpenPlaces(
  findings: readonly RegisteredFinding[],
  may: readonly MayBe[],
  places: readonly Path[],
): readonly RegisteredFinding[] {
  if (may.length === 0) return findings;
  const found = byKey(findings);
  const fallen = may.map(({ findings: all, isOnNewBoard }) => ({
    isOnNewBoard,
    list: byKey(all.filter((finding) => !stands(finding))),
  }));
  const falls = (finding: RegisteredFinding): boolean => fallen.some(({ list }) => list.has(keyOf(finding)));
  const held = findings.map((finding) =>
    stands(finding) && falls(finding) ? heldBack(finding, places) : finding,
  );
  const added = new Map<string, RegisteredFinding>();
  for (const { list, isOnNewBoard } of fallen)
    for (const [key, [first]] of isOnNewBoard ? [] : list)
      if (first !== undefined && !found.has(key)) added.set(key, heldBack({ ...first, missing: [] }, places));
  return [...held, ...added.values()].sort(compareFindings);
}
