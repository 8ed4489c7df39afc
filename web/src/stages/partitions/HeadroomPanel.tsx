import type { CompiledStack } from '@bastion/core';
import { memo } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { StripPanel } from '../../ui/StripPanel.tsx';
import { AutonomyTable } from '../stack/AutonomyTable.tsx';
import { LoadCases } from './LoadCases.tsx';
import { OverloadView } from './OverloadView.tsx';
import { StartCases } from './StartCases.tsx';
import { useAfterPaint } from '../../ui/useAfterPaint.ts';

const STRIPS = [
  { title: 'Continuous load, surge beyond it', checks: ['load.continuous'], whisker: 'surge.largest-start' },
  { title: 'Largest start', checks: ['surge.largest-start'] },
  { title: 'Voltage while starting', checks: ['surge.stall'] },
  { title: 'Cold pickup', checks: ['surge.cold-pickup'] },
  { title: 'Staggered pickup', checks: ['surge.staggered'] },
  { title: 'Chosen starts together', checks: ['surge.chosen'] },
  { title: 'Outputs', checks: ['load.output'] },
  { title: 'Pass-through', checks: ['grid.pass-through'] },
  { title: 'Grid port with charging', checks: ['grid.port'] },
  { title: 'Imbalance and neutral', checks: ['balance.lines', 'balance.neutral'] },
  { title: 'Breaks that loads ride through', checks: ['load.interruption'] },
  { title: 'Autonomy', checks: ['bank.autonomy'] },
  { title: 'Service', checks: ['grid.service'] },
] as const;

const Curves = memo(function Curves({ stacks }: { readonly stacks: readonly CompiledStack[] }) {
  return stacks.map((compiled) => (
    <div key={compiled.stack.id} className="grid gap-3 border-t border-rule pt-2">
      {stacks.length > 1 && <h3 className="font-semibold">{compiled.stack.name}</h3>}
      <OverloadView compiled={compiled} />
      <LoadCases compiled={compiled} />
      <AutonomyTable compiled={compiled} />
    </div>
  ));
});

/** Everything that moves when a circuit is moved, worst in sight. */
export function HeadroomPanel() {
  const { design, analysis } = useOpenJob();
  // The strips come first; curves and tables follow when they are on the screen.
  const { stacks } = useAfterPaint(analysis).installation;
  return (
    <aside
      className="sheet grid grid-cols-1 content-start gap-3 p-3 will-change-transform xl:sticky xl:top-0 xl:max-h-[calc(100dvh-150px)] xl:overflow-y-auto"
      aria-label="Headroom"
      tabIndex={-1}
    >
      <h2>Headroom</h2>
      {design.stacks.length === 0 ? (
        <p className="text-quiet">Headroom appears once a stack is chosen.</p>
      ) : (
        <StripPanel groups={STRIPS} />
      )}
      <Curves stacks={stacks} />
      {stacks.length > 0 && <StartCases />}
    </aside>
  );
}
