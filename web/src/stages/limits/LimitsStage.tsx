import { modesOf, type State, STATES } from '@bastion/core';
import { FileText, Printer } from 'lucide-react';
import { ToggleGroup } from 'radix-ui';
import { useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { StateMark } from '../../ui/StateMark.tsx';
import { Causes } from './Causes.tsx';
import { FindingList } from './FindingList.tsx';
import { countStates, Matrix } from './Matrix.tsx';

const toggle =
  'flex items-center gap-1.5 border border-edge px-2.5 py-1 first:rounded-l last:rounded-r -ml-px data-[state=on]:bg-chosen data-[state=on]:font-semibold';

function StateFilter({
  shown,
  onShow,
}: {
  readonly shown: readonly State[];
  readonly onShow: (states: State[]) => void;
}) {
  const { analysis } = useOpenJob();
  const counts = countStates(analysis.findings);
  return (
    <ToggleGroup.Root
      type="multiple"
      value={[...shown]}
      onValueChange={(values) => onShow(STATES.filter((state) => values.includes(state)))}
      aria-label="Which findings to list"
      className="flex flex-wrap pl-px"
    >
      {STATES.map((state) => (
        <ToggleGroup.Item key={state} value={state} className={toggle}>
          <StateMark state={state} /> {counts[state]}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** The verdict and its causes first; then the matrix of checks and modes, and every finding as a sentence. */
export function LimitsStage() {
  const { id, analysis } = useOpenJob();
  const modeId = useJob((store) => store.modeId);
  const [shown, setShown] = useState<readonly State[]>(['over', 'unknown', 'tight']);
  const [scope, setScope] = useState<'all' | 'mode'>('all');
  const modeLabel = modesOf(analysis.installation).find((mode) => mode.id === modeId)?.label ?? modeId;
  const listed = analysis.findings.filter(
    (finding) => shown.includes(finding.state) && (scope === 'all' || finding.mode === modeId),
  );
  if (analysis.findings.length === 0) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>Nothing to check yet</h2>
        <p className="mt-2">
          Limits appear as soon as there are circuits and a stack. Start with the site and the loads.
        </p>
      </div>
    );
  }
  return (
    <div className="grid grid-cols-1 gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <h2>Limits</h2>
        <p className="text-quiet">
          Within means within the limits entered. Local codes, the manuals and the licensed person go before
          this page.
        </p>
        <span className="flex-1" />
        <a className="button no-print" href={`/api/jobs/${id}/limits.pdf`} target="_blank" rel="noreferrer">
          <FileText size={15} aria-hidden="true" /> PDF
        </a>
        <button type="button" className="button no-print" onClick={() => window.print()}>
          <Printer size={15} aria-hidden="true" /> Print
        </button>
      </div>
      <Causes />
      <Matrix />
      <div className="no-print flex flex-wrap items-center gap-3">
        <h2>Every finding, worst first</h2>
        <StateFilter shown={shown} onShow={setShown} />
        <ToggleGroup.Root
          type="single"
          value={scope}
          onValueChange={(value) => (value === 'all' || value === 'mode') && setScope(value)}
          aria-label="Modes to list"
          className="flex flex-wrap pl-px"
        >
          <ToggleGroup.Item value="all" className={toggle}>
            All modes
          </ToggleGroup.Item>
          <ToggleGroup.Item value="mode" className={toggle}>
            {modeLabel} only
          </ToggleGroup.Item>
        </ToggleGroup.Root>
      </div>
      {listed.length === 0 ? (
        <p className="text-quiet">No findings in this choice.</p>
      ) : (
        <FindingList findings={listed} />
      )}
    </div>
  );
}
