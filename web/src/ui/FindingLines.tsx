import {
  checkById,
  type CheckId,
  compareFindings,
  concerns,
  type Finding,
  type Ref,
  sentenceOf,
  subjectKey,
} from '@bastion/core';
import { useDrawer } from '../state/drawer.ts';
import { useOpenJob } from '../state/job.ts';
import { StateMark } from './StateMark.tsx';

interface AboutProps {
  readonly checks: readonly CheckId[];
  readonly about: Ref;
}

/** What some checks find about a thing: the worst over all modes for each check and subject, worst first. */
export function useFindingsAbout(checks: readonly CheckId[], about: Ref): readonly Finding[] {
  const { analysis } = useOpenJob();
  const worst = new Map<string, Finding>();
  for (const finding of analysis.findings) {
    if (!checks.includes(finding.check) || !concerns(finding.subject, about)) continue;
    const key = `${finding.check} ${subjectKey(finding.subject)}`;
    const before = worst.get(key);
    if (before === undefined || compareFindings(finding, before) < 0) worst.set(key, finding);
  }
  return [...worst.values()].sort(compareFindings);
}

/** Findings as sentences; each opens into its working. `onLight` hears which one is pointed at. */
export function FindingList({
  found,
  onLight,
}: {
  readonly found: readonly Finding[];
  readonly onLight?: (isOn: boolean) => void;
}) {
  const { design } = useOpenJob();
  const open = useDrawer((store) => store.open);
  if (found.length === 0) return null;
  return (
    <ul className="mt-1">
      {found.map((finding) => (
        <li key={`${finding.check} ${subjectKey(finding.subject)}`}>
          <button
            type="button"
            className="flex w-full items-start gap-2 rounded-sm px-1 py-0.5 text-left hover:bg-ground"
            title={checkById(finding.check).title}
            onClick={() => open(finding)}
            onPointerEnter={() => onLight?.(true)}
            onPointerLeave={() => onLight?.(false)}
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

/** What some checks say about a thing, beside the form that would mend it. */
export function FindingLines({
  checks,
  about,
  onlyTrouble = false,
}: AboutProps & { readonly onlyTrouble?: boolean }) {
  const found = useFindingsAbout(checks, about).filter((one) => !onlyTrouble || one.state !== 'within');
  return <FindingList found={found} />;
}
