import type { CompiledStack } from '@bastion/core';
import { useJob, useOpenJob } from '../../state/job.ts';
import { StripPanel } from '../../ui/StripPanel.tsx';
import { AutonomyTable } from './AutonomyTable.tsx';
import { CapabilityTable } from './CapabilityTable.tsx';
import { FindingLines } from '../../ui/FindingLines.tsx';
import { ArraysPanel } from './ArraysPanel.tsx';
import { BusPanel } from './BusPanel.tsx';
import { ControllersPanel } from './ControllersPanel.tsx';
import { BankPanel } from './bank/BankPanel.tsx';
import { GeneratorForm } from './GeneratorForm.tsx';
import { NewerTypes } from './NewerTypes.tsx';
import { addStack } from './stackEdits.ts';
import { SetUpForm } from './SetUpForm.tsx';
import { StackForm } from './StackForm.tsx';
import { StackPicture } from './StackPicture.tsx';
import { UnitLoss } from './UnitLoss.tsx';
import { UnitTable } from './UnitTable.tsx';

const STRIPS = [
  { title: 'Continuous load, surge beyond it', checks: ['load.continuous'], whisker: 'surge.largest-start' },
  { title: 'Whole stack', checks: ['load.total'] },
  { title: 'Battery current at nominal voltage', checks: ['bank.current-nominal'] },
  { title: 'Battery current at minimum voltage', checks: ['bank.current-minimum'] },
  { title: 'Battery current, largest start', checks: ['bank.surge-current'] },
  { title: 'Module sharing', checks: ['bank.sharing'] },
  { title: 'Hardest-working module', checks: ['bank.module-current'] },
  { title: 'Module, largest start', checks: ['bank.module-surge'] },
  { title: 'Voltage, largest start', checks: ['bank.sag'] },
  { title: 'Battery leads of the inverters', checks: ['bank.inverter-leads'] },
  { title: 'Autonomy from the reserve', checks: ['bank.autonomy'] },
  { title: 'Charge settings', checks: ['bank.charge'] },
  {
    title: 'Generator',
    checks: ['generator.loading', 'generator.port', 'generator.step', 'generator.least-loading'],
  },
] as const;

function OneStack({ compiled }: { readonly compiled: CompiledStack }) {
  const { analysis } = useOpenJob();
  return (
    <section aria-label={compiled.stack.name} className="min-w-0">
      <div className="sheet p-3">
        <h2>{compiled.stack.name}</h2>
        <div className="mt-2 relative overflow-x-auto">
          <StackPicture installation={analysis.installation} compiled={compiled} />
        </div>
        <FindingLines
          checks={[
            'stack.arrangement',
            'stack.outlet',
            'stack.equal-lines',
            'stack.enable',
            'grid.transfer-device',
            'grid.transfer-control',
            'grid.control-supply',
          ]}
          about={{ kind: 'stack', id: compiled.stack.id }}
          onlyTrouble
        />
        <BusPanel compiled={compiled} />
        <UnitTable stack={compiled.stack} />
      </div>
      <UnitLoss compiled={compiled} />
      <BankPanel compiled={compiled} />
      <div className="mt-3 grid grid-cols-1 gap-3 2xl:grid-cols-[3fr_2fr]">
        <div className="sheet p-3">
          <CapabilityTable installation={analysis.installation} compiled={compiled} />
        </div>
        <div className="sheet p-3">
          <AutonomyTable compiled={compiled} />
        </div>
      </div>
    </section>
  );
}

/** Inverters, battery and generator: the set as it hangs together, what it can carry, and how near each limit is. */
export function StackStage() {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  if (design.stacks.length === 0)
    return canEdit ? (
      <SetUpForm />
    ) : (
      <div className="sheet max-w-xl p-6">
        <h2>No stack yet</h2>
        <p className="mt-2">The set of inverters that carries the backup output is not chosen yet.</p>
      </div>
    );
  return (
    <div className="grid grid-cols-1 items-start gap-4 lg:grid-cols-[220px_minmax(0,1fr)] xl:grid-cols-[220px_minmax(0,1fr)_300px]">
      <div className="sheet p-3 max-lg:order-2 max-xl:row-span-2">
        {design.stacks.map((stack) => (
          <div key={stack.id} className="mb-4">
            <h2 className="mb-1">{stack.name}: choices</h2>
            <StackForm stack={stack} />
          </div>
        ))}
        {canEdit && (
          <button
            type="button"
            className="button w-full justify-center"
            onClick={() => change('Add a stack', addStack)}
          >
            Add another stack
          </button>
        )}
        <GeneratorForm />
      </div>
      <div className="grid min-w-0 grid-cols-1 gap-4">
        <NewerTypes />
        {analysis.installation.stacks.map((compiled) => (
          <OneStack key={compiled.stack.id} compiled={compiled} />
        ))}
        <ControllersPanel />
        <ArraysPanel />
      </div>
      <aside
        className="sheet p-3 xl:sticky xl:top-0 xl:max-h-[calc(100dvh-150px)] xl:overflow-y-auto"
        aria-label="Headroom"
      >
        <h2 className="mb-2">Headroom</h2>
        <StripPanel groups={STRIPS} />
      </aside>
    </div>
  );
}
