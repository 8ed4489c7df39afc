import { type Analysis, modesOf, type State, STATES } from '@bastion/core';
import { ToggleGroup } from 'radix-ui';
import { memo } from 'react';
import { useJob, useOpenJob } from '../state/job.ts';
import { StateMark } from './StateMark.tsx';
import { useAfterPaint } from './useAfterPaint.ts';

/** The operating mode of the whole workspace, each with the worst state that it holds. */
export function ModeRibbon() {
  const { analysis } = useOpenJob();
  // The strips of the page come first; the ribbon follows a moment later.
  return <Ribbon analysis={useAfterPaint(analysis)} />;
}

const ModeMark = ({ state }: { readonly state: State | undefined }) =>
  state === undefined ? null : <StateMark state={state} silent />;

const Ribbon = memo(function Ribbon({ analysis }: { readonly analysis: Analysis }) {
  const modeId = useJob((store) => store.modeId);
  const chooseMode = useJob((store) => store.chooseMode);
  // A mode whose loss need not be survived has no findings: there is no verdict to mark.
  const worstOf = (id: string): State | undefined =>
    STATES.find((state) =>
      analysis.findings.some((finding) => finding.mode === id && finding.state === state),
    );
  return (
    <ToggleGroup.Root
      type="single"
      value={modeId}
      onValueChange={(value) => value !== '' && chooseMode(value)}
      aria-label="Operating mode"
      className="relative flex overflow-x-auto"
    >
      {modesOf(analysis.installation).map((mode) => (
        <ToggleGroup.Item
          key={mode.id}
          value={mode.id}
          className="condensed flex h-9 items-center gap-1.5 border-b-[3px] border-transparent px-2.5 whitespace-nowrap data-[state=on]:border-touch data-[state=on]:bg-chosen data-[state=on]:font-semibold"
        >
          <ModeMark state={worstOf(mode.id)} />
          {mode.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
});
