import { checkById, type Finding, formatQuantity, sentenceOf } from '@bastion/core';
import { useDrawer } from '../state/drawer.ts';
import { useOpenJob } from '../state/job.ts';
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

/** A finding as a row: name, strip, and its margin. The whole row opens its working. */
export function FindingStrip({ finding, label, whisker }: FindingStripProps) {
  const { design } = useOpenJob();
  const open = useDrawer((store) => store.open);
  return (
    <button
      type="button"
      className="grid min-h-6 w-full grid-cols-[5.2rem_minmax(3rem,1fr)_6.6rem] items-center gap-2 rounded-sm px-1 py-0.5 text-left hover:bg-ground"
      onClick={() => open(finding)}
      title={sentenceOf(design, finding)}
      aria-label={`${checkById(finding.check).title}, ${sentenceOf(design, finding)} Show the working.`}
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
}
