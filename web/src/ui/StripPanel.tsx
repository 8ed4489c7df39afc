import { checkById, type CheckId, type Finding, isSameSubject, modesOf, subjectKey } from '@bastion/core';
import { useJob, useOpenJob } from '../state/job.ts';
import { FindingStrip } from './FindingStrip.tsx';

interface StripGroup {
  readonly title: string;
  readonly checks: readonly CheckId[];
  /** The check whose load is drawn as a whisker over these strips. */
  readonly whisker?: CheckId;
}

/** What tells a strip from its neighbours in the group: the line, the generator, or what is checked. */
function shortLabel(finding: Finding, among: readonly string[]): string {
  const { kind, label, about } = finding.subject;
  // A chosen set of starts has a name of its own behind the line.
  if (finding.check === 'surge.chosen')
    return `${about?.find((one) => one.kind === 'supply-line')?.id ?? ''} ${label.split(', ').at(-1) ?? ''}`;
  if (kind === 'line' || kind === 'service') return label.split(' ').at(-1) ?? label;
  if (kind === 'generator') return label;
  return among.length > 1 ? checkById(finding.check).title : kind === 'bank' ? 'Bank' : label;
}

function whiskerOf(
  finding: Finding,
  findings: readonly Finding[],
  check: CheckId | undefined,
): number | undefined {
  if (check === undefined || finding.limit === undefined || finding.limit === 0) return undefined;
  const surge = findings.find(
    (one) => one.check === check && one.mode === finding.mode && isSameSubject(one.subject, finding.subject),
  );
  return surge?.value === undefined ? undefined : surge.value / finding.limit;
}

/**
 * Columns of headroom strips for the chosen mode. A group whose checks do not apply in this mode shows the mode where it
 * bites, so that it keeps moving while circuits are moved.
 */
export function StripPanel({ groups }: { readonly groups: readonly StripGroup[] }) {
  const { analysis } = useOpenJob();
  const modeId = useJob((store) => store.modeId);
  const { findings, installation } = analysis;
  return (
    <div className="grid gap-3">
      {groups.map(({ title, checks, whisker }) => {
        const all = findings.filter((finding) => checks.includes(finding.check));
        const here = all.filter((finding) => finding.mode === modeId);
        const fallback = modesOf(installation).find((mode) =>
          all.some((finding) => finding.mode === mode.id),
        );
        const shown = here.length > 0 ? here : all.filter((finding) => finding.mode === fallback?.id);
        if (shown.length === 0) return null;
        const ordered = [...shown].sort((a, b) => a.subject.id.localeCompare(b.subject.id));
        return (
          <section key={title} aria-label={title}>
            <h3 className="mb-0.5 flex justify-between gap-2 text-[13px] font-semibold">
              {title}
              {here.length === 0 && fallback !== undefined && (
                <span className="font-normal text-quiet">{fallback.label.toLowerCase()}</span>
              )}
            </h3>
            {ordered.map((finding) => (
              <FindingStrip
                key={`${finding.check} ${subjectKey(finding.subject)}`}
                finding={finding}
                label={shortLabel(finding, checks)}
                whisker={whiskerOf(finding, findings, whisker)}
              />
            ))}
          </section>
        );
      })}
    </div>
  );
}
