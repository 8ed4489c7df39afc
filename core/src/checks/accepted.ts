import type { Acceptance } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import type { Path } from '../values/problem.ts';
import { remember } from '../values/remember.ts';
import { type Finding, subjectKey } from './finding.ts';

/** Room for rounding when figures are compared with those that were accepted. */
const ROUNDING = 1e-6;

/** What is left of the limit, as a share of it or, of a limit of nothing, as it is; negative when over. */
export function excessOf({ value, limit, bound }: Finding): number | undefined {
  if (value === undefined || limit === undefined) return undefined;
  const room = bound === 'at-most' ? limit - value : value - limit;
  return limit === 0 ? room : room / Math.abs(limit);
}

/** What an ungraded finding says: one trouble in the place of another counts as much, and is not what was accepted. */
const wordsOf = ({ data }: Finding): string => JSON.stringify(Object.entries(data).sort());

const isGraded = ({ margin }: Finding): boolean => margin !== undefined;

const pathKey = (path: Path): string => path.join('/');

const bySubject = remember((installation: Installation) => {
  const map = new Map<string, Acceptance>();
  for (const one of installation.accepted) map.set(`${one.check} ${one.subject.kind} ${one.subject.id}`, one);
  return map;
});

/**
 * The acceptance that covers a finding; undefined where nobody took responsibility, or where the figures have become worse than
 * those that were accepted.
 */
export function acceptanceOf(installation: Installation, finding: Finding): Acceptance | undefined {
  if (finding.state !== 'over' && finding.state !== 'unknown') return undefined;
  const found = bySubject(installation).get(`${finding.check} ${subjectKey(finding.subject)}`);
  if (found?.state !== finding.state) return undefined;
  if (finding.state === 'unknown') {
    const known = new Set(found.missing);
    return finding.missing.every((path) => known.has(pathKey(path))) ? found : undefined;
  }
  if (found.words !== undefined && !isGraded(finding) && !found.words.includes(wordsOf(finding)))
    return undefined;
  const now = excessOf(finding);
  if (now === undefined || found.margin === undefined) return now === found.margin ? found : undefined;
  return now >= found.margin - ROUNDING ? found : undefined;
}

/** What accepting some findings of one check and subject would hold on to: the worst of their figures, and all that is missing. */
export function figuresToAccept(
  findings: readonly Finding[],
): Pick<Acceptance, 'margin' | 'missing' | 'words'> {
  const margins = findings.flatMap((finding) => excessOf(finding) ?? []);
  const ungraded = findings.filter((finding) => finding.state === 'over' && !isGraded(finding));
  return {
    ...(margins.length === 0 ? {} : { margin: Math.min(...margins) }),
    missing: [...new Set(findings.flatMap(({ missing }) => missing.map(pathKey)))],
    ...(ungraded.length === 0 ? {} : { words: [...new Set(ungraded.map(wordsOf))] }),
  };
}
