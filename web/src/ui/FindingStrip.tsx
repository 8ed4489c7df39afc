import { checkById, type Finding, formatQuantity, isSameSubject, sentenceOf } from '@bastion/core';
import { useDrawer } from '../state/drawer.ts';
import { memo } from 'react';
import { useJob } from '../state/job.ts';
import { HeadroomStrip } from './HeadroomStrip.tsx';
import { StateMark } from './StateMark.tsx';

export function ratioOf(finding: Finding): number | undefined {
  const { value, limit, bound } = finding;
  if (value === undefined || limit === undefined) return undefined;
  if (limit === 0) return value === 0 ? 0 : 2;
  return bound === 'at-most' ? value / limit : value === 0 ? 2 : limit / value;
}

/** What is left, in the strip's own unit; what is missing where it is not known. */
export function headroomWords(finding: Finding): string {
  const { value, limit, unit, state, bound } = finding;
  if (state === 'unknown' || value === undefined || limit === undefined) return 'not known';
  const room = bound === 'at-most' ? limit - value : value - limit;
  const size = formatQuantity(Math.abs(room), unit);
  return room < 0 ? `${size} ${bound === 'at-most' ? 'over' : 'short'}` : `${size} left`;
}

interface FindingStripProps {
  readonly finding: Finding;
  readonly label: string;
  readonly whisker?: number | undefined;
}

const sameFigures = (a: FindingStripProps, b: FindingStripProps): boolean =>
  a.label === b.label &&
  a.whisker === b.whisker &&
  a.finding.check === b.finding.check &&
  isSameSubject(a.finding.subject, b.finding.subject) &&
  a.finding.mode === b.finding.mode &&
  a.finding.state === b.finding.state &&
  a.finding.value === b.finding.value &&
  a.finding.limit === b.finding.limit &&
  JSON.stringify([a.finding.missing, a.finding.data]) === JSON.stringify([b.finding.missing, b.finding.data]);

/** Opens the working of a finding as it stands now: the one that was drawn may be of an earlier design with the same figures. */
function openNow(drawn: Finding): void {
  const now = useJob
    .getState()
    .job?.analysis.findings.find(
      (one) =>
        one.check === drawn.check && one.mode === drawn.mode && isSameSubject(one.subject, drawn.subject),
    );
  useDrawer.getState().open(now ?? drawn);
}

/** A finding as a row: name, strip, and its margin. The whole row opens its working. Drawn again when its figures change. */
export const FindingStrip = memo(function FindingStrip({ finding, label, whisker }: FindingStripProps) {
  const design = useJob.getState().job?.design;
  const words = design === undefined ? '' : sentenceOf(design, finding);
  return (
    <button
      type="button"
      className="grid min-h-6 w-full grid-cols-[5.2rem_minmax(3rem,1fr)_6.6rem] items-center gap-2 rounded-sm px-1 py-0.5 text-left hover:bg-ground"
      onClick={() => openNow(finding)}
      title={words}
      aria-label={`${checkById(finding.check).title}, ${words} Show the working.`}
    >
      <span className="condensed truncate">{label}</span>
      <HeadroomStrip state={finding.state} ratio={ratioOf(finding)} whisker={whisker} />
      <span className="condensed flex items-center justify-end gap-1 text-right">
        <span className={finding.state === 'over' ? 'font-semibold text-over' : ''}>
          {headroomWords(finding)}
        </span>
        <StateMark state={finding.state} silent />
      </span>
    </button>
  );
}, sameFigures);
