import { checkById, compareFindings, type Finding, sentenceOf } from '@bastion/core';
import { useDrawer } from '../state/drawer.ts';
import { useOpenJob } from '../state/job.ts';
import { StateMark } from './StateMark.tsx';

interface AboutProps {
  readonly checks: readonly string[];
  /** The subject's id, or the beginning of it up to a slash. */
  readonly about: string;
}

const isAbout = (finding: Finding, about: string): boolean =>
  finding.subject.id === about || finding.subject.id.startsWith(`${about}/`);

/** What some checks find about a thing: the worst over all modes for each check and subject, worst first. */
export function useFindingsAbout(checks: readonly string[], about: string): readonly Finding[] {
  const { analysis } = useOpenJob();
  const worst = new Map<string, Finding>();
  for (const finding of analysis.findings) {
    if (!checks.includes(finding.check) || !isAbout(finding, about)) continue;
    const key = `${finding.check} ${finding.subject.id}`;
    const before = worst.get(key);
    if (before === undefined || compareFindings(finding, before) < 0) worst.set(key, finding);
  }
  return [...worst.values()].sort(compareFindings);
}

/** What some checks say about a thing, beside the form that would mend it. */
export function FindingLines({
  checks,
  about,
  onlyTrouble = false,
}: AboutProps & { readonly onlyTrouble?: boolean }) {
  const { design } = useOpenJob();
  const open = useDrawer((store) => store.open);
  const found = useFindingsAbout(checks, about).filter((one) => !onlyTrouble || one.state !== 'within');
  if (found.length === 0) return null;
  return (
    <ul className="mt-1">
      {found.map((finding) => (
        <li key={`${finding.check} ${finding.subject.id}`}>
          <button
            type="button"
            className="flex w-full items-start gap-2 rounded-sm px-1 py-0.5 text-left hover:bg-ground"
            title={checkById(finding.check).title}
            onClick={() => open(finding)}
          >
            <span className="shrink-0">
              <StateMark state={finding.state} />
            </span>
            <span className="min-w-0">{sentenceOf(design, finding)}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
