import type { Installation } from '../installation/installation.ts';
import { statedOf } from '../installation/stated.ts';
import { modesOf } from '../modes/modes.ts';
import type { Analysis } from './analyse.ts';
import { remember } from '../values/remember.ts';
import type { Path } from '../values/problem.ts';
import { describePlace, fieldLabel } from '../words/places.ts';
import { acceptanceOf } from './accepted.ts';
import { compareFindings, type State, subjectKey } from './finding.ts';
import { type CheckId, checkById, type RegisteredFinding } from './registry.ts';
import { FOLLOWS, SEVERITIES, type Severity, severityOf } from './severity.ts';

/** Findings that have one root: one line with its count, its worst case and the modes it holds in. */
export interface Cause {
  readonly id: string;
  readonly state: Exclude<State, 'within'>;
  /** All of it is accepted by name. */
  readonly accepted: boolean;
  readonly severity: Severity;
  readonly title: string;
  readonly findings: readonly RegisteredFinding[];
  readonly worst: RegisteredFinding;
  /** Ids of modes, in their order. */
  readonly modes: readonly string[];
  /** For something that is not known: the places that would have to say it. */
  readonly missing: readonly Path[];
  /** The cause that brings it; undefined for a root. */
  readonly follows: string | undefined;
}

/** Lists whose entities are told together when the same figure is missing in several of them. */
const TOGETHER = new Set<string | number>([
  'circuits',
  'items',
  'units',
  'modules',
  'devices',
  'partitions',
  'meters',
  'instruments',
  'places',
  'mounted',
  'groups',
]);

/** A missing place with the entities of long lists left out: what is missing is the same thing in all of them. */
function kindOfPlace(path: Path): string {
  return path.map((part, index) => (TOGETHER.has(path[index - 1] ?? '') ? '*' : part)).join('/');
}

/** What the findings of one check are grouped by: the set, the generator or the pair of things that they are about. */
function placeOf({ subject, check }: RegisteredFinding): string {
  if (check === 'place.clearance' || check === 'place.overlap') {
    const pair = [subject.id, ...(subject.about ?? []).map(({ id }) => id)];
    return [...new Set(pair)].sort().join(' | ');
  }
  // The same fault at many conductors, or of the same wall, is one thing to mend.
  if (check === 'place.exposure' || check.startsWith('wiring.')) return '';
  if (subject.kind === 'part' || subject.kind === 'place') return subjectKey(subject);
  const set = subject.about?.find(
    ({ kind }) => kind === 'stack' || kind === 'generator' || kind === 'service',
  );
  return set === undefined ? subjectKey(subject) : `${set.kind} ${set.id}`;
}

interface Group {
  readonly key: string;
  readonly findings: RegisteredFinding[];
  readonly missing: Map<string, Path>;
}

function groupFindings(findings: readonly RegisteredFinding[]): Group[] {
  const groups = new Map<string, Group>();
  const into = (key: string, finding: RegisteredFinding, path?: Path): void => {
    const group = groups.get(key) ?? { key, findings: [], missing: new Map<string, Path>() };
    groups.set(key, group);
    if (group.findings.at(-1) !== finding) group.findings.push(finding);
    if (path !== undefined) group.missing.set(path.join('/'), path);
  };
  for (const finding of findings) {
    if (finding.state === 'within') continue;
    if (finding.state === 'unknown')
      for (const path of finding.missing) into(`missing ${kindOfPlace(path)}`, finding, path);
    else into(`${finding.state} ${finding.check} ${placeOf(finding)}`, finding);
  }
  return [...groups.values()];
}

function missingTitle(installation: Installation, missing: readonly Path[]): string {
  const [first] = missing;
  if (first === undefined) return 'Something is not known';
  if (missing.length === 1) return capital(`${describePlace(statedOf(installation), first)} is not known`);
  return capital(`${fieldLabel(String(first.at(-1)))} is not known in ${missing.length} places`);
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

function titleOf(installation: Installation, { findings, missing }: Group, worst: RegisteredFinding): string {
  if (worst.state === 'unknown') return missingTitle(installation, [...missing.values()]);
  const subjects = new Set(findings.map(({ subject }) => subjectKey(subject)));
  const where = worst.subject.label;
  return `${checkById(worst.check).title} (${where}${subjects.size > 1 ? ` and ${subjects.size - 1} more` : ''})`;
}

const STATE_RANK: Record<Cause['state'], number> = { over: 0, unknown: 1, tight: 2 };

function causeOf(installation: Installation, group: Group): Cause {
  const findings = [...group.findings].sort(compareFindings);
  const accepted = findings.every((finding) => acceptanceOf(installation, finding) !== undefined);
  const open = findings.filter((finding) => acceptanceOf(installation, finding) === undefined);
  const [worst = group.findings[0]] = accepted ? findings : open;
  if (worst === undefined || worst.state === 'within')
    throw new Error('A cause has a finding that is not within.');
  const present = new Set(findings.map(({ mode }) => mode));
  const severities = findings.map((finding) => SEVERITIES.indexOf(severityOf(finding)));
  return {
    id: group.key,
    state: worst.state,
    accepted,
    severity: SEVERITIES[Math.min(...severities)] ?? 'wear',
    title: titleOf(installation, group, worst),
    findings,
    worst,
    modes: modesOf(installation).flatMap(({ id }) => (present.has(id) ? [id] : [])),
    missing: [...group.missing.values()],
    follows: undefined,
  };
}

/** Checks whose causes are a root of this one, nearest first. */
const ROOTS_OF: ReadonlyMap<CheckId, readonly CheckId[]> = (() => {
  const roots = new Map<CheckId, CheckId[]>();
  for (const [root, consequences] of Object.entries(FOLLOWS) as [CheckId, readonly CheckId[]][])
    for (const one of consequences) roots.set(one, [...(roots.get(one) ?? []), root]);
  return roots;
})();

const setOf = ({ worst: { subject } }: Cause): string =>
  subject.about?.find(({ kind }) => kind === 'stack' || kind === 'generator')?.id ??
  (subject.kind === 'stack' || subject.kind === 'bank' ? subject.id : '');

/** The root that brings a cause, of those that are over on the same set. */
function rootOf(cause: Cause, over: readonly Cause[]): Cause | undefined {
  if (cause.state !== 'over') return undefined;
  const roots = ROOTS_OF.get(cause.worst.check) ?? [];
  return over.find(
    (one) => one !== cause && roots.includes(one.worst.check) && setOf(one) === setOf(cause) && !one.accepted,
  );
}

const isOfWall = ({ worst }: Cause): boolean => worst.check.startsWith('place.');

function compareCauses(a: Cause, b: Cause): number {
  return (
    Number(a.accepted) - Number(b.accepted) ||
    STATE_RANK[a.state] - STATE_RANK[b.state] ||
    SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) ||
    // Of what endangers alike, what is live comes before where it hangs.
    Number(isOfWall(a)) - Number(isOfWall(b)) ||
    compareFindings(a.worst, b.worst)
  );
}

/**
 * The causes of an analysis: over first, then what is not known, then what is tight; inside, what endangers people before what destroys
 * equipment, drops the load or wears; each root before what follows from it. What is accepted comes last.
 */
export function causesOf(
  installation: Installation,
  findings: readonly RegisteredFinding[],
): readonly Cause[] {
  const sorted = groupFindings(findings)
    .map((group) => causeOf(installation, group))
    .sort(compareCauses);
  const over = sorted.filter(({ state }) => state === 'over');
  const withRoots = sorted.map((cause): Cause => ({ ...cause, follows: rootOf(cause, over)?.id }));
  // What follows stands behind its root, whatever it endangers by itself.
  const ids = new Set(withRoots.map(({ id }) => id));
  const roots = withRoots.filter(({ follows }) => follows === undefined || !ids.has(follows));
  const placed: Cause[] = [];
  const place = (cause: Cause): void => {
    if (placed.includes(cause)) return;
    placed.push(cause);
    withRoots.filter(({ follows }) => follows === cause.id).forEach(place);
  };
  roots.forEach(place);
  // A ring of roots cannot come out of the table; were there one, nothing is left out.
  withRoots.forEach(place);
  return placed;
}

/** The causes of an analysis, worked out once. */
export const analysisCauses = remember(({ installation, findings }: Analysis) =>
  causesOf(installation, findings),
);

/** Whether a finding of a changed design would belong to the same cause. */
export function inSameCause(cause: Cause, finding: RegisteredFinding): boolean {
  if (cause.state === 'unknown')
    return finding.missing.some((path) => `missing ${kindOfPlace(path)}` === cause.id);
  return finding.check === cause.worst.check && placeOf(finding) === placeOf(cause.worst);
}
