import { acceptanceOf, checkById, type Finding, modesOf, sentenceOf, subjectKey } from '@bastion/core';
import { useDrawer } from '../../state/drawer.ts';
import { useOpenJob } from '../../state/job.ts';
import { headroomWords, ratioOf } from '../../ui/FindingStrip.tsx';
import { HeadroomStrip } from '../../ui/HeadroomStrip.tsx';
import { StateMark } from '../../ui/StateMark.tsx';

function FindingRow({ finding, modeLabel }: { readonly finding: Finding; readonly modeLabel: string }) {
  const { design, analysis } = useOpenJob();
  const accepted = acceptanceOf(analysis.installation, finding);
  const open = useDrawer((store) => store.open);
  return (
    <li className="keep-together border-t border-rule first:border-t-0">
      <button
        type="button"
        className="grid w-full grid-cols-[5.5rem_minmax(0,1fr)] gap-3 px-3 py-2 text-left hover:bg-chosen md:grid-cols-[5.5rem_minmax(0,1fr)_150px_7rem]"
        onClick={() => open(finding)}
      >
        <span>
          <StateMark state={finding.state} />
          {accepted !== undefined && <span className="block text-[12px] text-quiet">accepted</span>}
        </span>
        <span>
          <span className="font-semibold">{checkById(finding.check).title}</span>{' '}
          <span className="text-quiet">{modeLabel}</span>
          <br />
          {sentenceOf(design, finding)}
          {accepted !== undefined && (
            <span className="text-quiet">
              {' '}
              Accepted by {accepted.by}: {accepted.reason}
            </span>
          )}
        </span>
        <span className="self-center max-md:hidden">
          {(finding.margin !== undefined || finding.state === 'unknown') && (
            <HeadroomStrip state={finding.state} ratio={ratioOf(finding)} />
          )}
        </span>
        <span
          className={`condensed self-center text-right max-md:col-start-2 max-md:text-left ${finding.state === 'over' ? 'font-semibold text-over' : ''}`}
        >
          {headroomWords(finding)}
        </span>
      </button>
    </li>
  );
}

/** Findings as sentences, worst first; each opens into its working. */
export function FindingList({ findings }: { readonly findings: readonly Finding[] }) {
  const { analysis } = useOpenJob();
  const labels = new Map(modesOf(analysis.installation).map((mode) => [mode.id, mode.label]));
  return (
    <ol className="sheet">
      {findings.map((finding) => (
        <FindingRow
          key={`${finding.check} ${finding.mode} ${subjectKey(finding.subject)}`}
          finding={finding}
          modeLabel={labels.get(finding.mode) ?? finding.mode}
        />
      ))}
    </ol>
  );
}
