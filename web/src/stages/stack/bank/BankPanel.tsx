import {
  type CheckId,
  type CompiledStack,
  describePlaces,
  formatQuantity,
  isOwnBank,
  type SharingFix,
  sharingFixes,
  type Stack,
} from '@bastion/core';
import { ToggleGroup } from 'radix-ui';
import { useMemo, useState } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { useJob, useOpenJob } from '../../../state/job.ts';
import { FindingLines } from '../../../ui/FindingLines.tsx';
import { readNumber } from '../../../ui/readNumber.ts';
import { BankLimits } from './BankLimits.tsx';
import { CommsPanel } from './CommsPanel.tsx';
import { DriftPanel } from './DriftPanel.tsx';
import { JoinPanel } from './JoinPanel.tsx';
import { BankDrawing } from './BankDrawing.tsx';
import { JoiningForm } from './JoiningForm.tsx';
import { LeadEditor } from './LeadEditor.tsx';
import { OneByOne } from './OneByOne.tsx';
import { type BankLoadChoice, type Shared, useBankShare } from './useBankShare.ts';

const LOADS: readonly { readonly value: BankLoadChoice; readonly label: string }[] = [
  { value: 'continuous', label: 'Continuous load' },
  { value: 'largest-start', label: 'Largest start' },
  { value: 'typed', label: 'Typed load' },
];

/** What concerns the bank as a whole and has no place of its own below. */
const ABOUT_THE_WHOLE: readonly CheckId[] = ['bank.rule', 'bank.mixed-types', 'bank.modules', 'bank.window'];

const percent = (value: number | undefined): string =>
  value === undefined ? 'not known' : formatQuantity(value, 'fraction');

/** Ways to share more evenly, each with what it does, best first. */
function Fixes({ fixes }: { readonly fixes: readonly SharingFix[] }) {
  const { canEdit } = useOpenJob();
  const apply = useJob((store) => store.apply);
  if (fixes.length === 0) return null;
  return (
    <section aria-label="Ways to share more evenly" className="mt-2">
      <h4 className="font-semibold">Ways to share more evenly</h4>
      <ul>
        {fixes.map((fix) => (
          <li key={fix.id} className="flex flex-wrap items-center gap-x-3 border-t border-rule py-1">
            <span className="min-w-60 flex-1">{fix.label}</span>
            <span className="whitespace-nowrap">
              {percent(fix.before)} to <strong>{percent(fix.after)}</strong> from the mean
            </span>
            {canEdit && (
              <button
                type="button"
                className="button"
                aria-label={`Take it: ${fix.label}`}
                onClick={() => apply(fix.label, fix.edits)}
              >
                Take it
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Outcome({ shared }: { readonly shared: Extract<Shared, { kind: 'known' }> }) {
  const { share, loadW, label, ofUnitId } = shared;
  if (share.kind === 'too-much')
    return (
      <p role="alert" className="font-semibold text-over">
        The bank cannot give {formatQuantity(loadW, 'W')}: {formatQuantity(share.deliverableW, 'W')} of direct
        current is the most it can, whatever the inverters ask for.
      </p>
    );
  if (share.kind === 'no-answer')
    return (
      <p role="alert" className="font-semibold text-over">
        The bank has no answer as it is described: {share.problem.kind.replace(/-/g, ' ')}.
      </p>
    );
  const drawing = share.taps.filter((tap) => tap.currentA > 0);
  const lowest = Math.min(...(drawing.length > 0 ? drawing : share.taps).map((tap) => tap.voltageV));
  const heat = share.modules.reduce((sum, one) => sum + one.lossW, 0);
  return (
    <p aria-live="polite">
      {label === undefined ? '' : `While ${label} starts, `}
      {formatQuantity(loadW, 'W')} of load draws <strong>{formatQuantity(share.totalA, 'A')}</strong>
      {ofUnitId === undefined ? '' : ' from this bank'}; the modules are within{' '}
      <strong>{formatQuantity(share.worstDeparture, 'fraction')}</strong> of the mean; the lowest voltage at
      an inverter is {lowest.toFixed(2)} V; {formatQuantity(heat, 'W')} of heat in modules and their leads.
    </p>
  );
}

/** Whose bank is shown, where each inverter has one of its own. */
function OwnBanks({
  stack,
  shownId,
  chosenId,
  onChoose,
}: {
  readonly stack: Stack;
  readonly shownId: string | undefined;
  readonly chosenId: string | undefined;
  readonly onChoose: (unitId: string | undefined) => void;
}) {
  const number = stack.units.findIndex((unit) => unit.id === shownId) + 1;
  return (
    <p className="flex flex-wrap items-center gap-2">
      Each of the {stack.units.length} inverters has a bank like this one. Shown:
      <select
        aria-label="Bank that is shown"
        className="input w-auto!"
        value={chosenId ?? ''}
        onChange={(event) => onChoose(event.target.value === '' ? undefined : event.target.value)}
      >
        <option value="">the hardest-working{number > 0 ? `: unit ${number}` : ''}</option>
        {stack.units.map((unit, index) => (
          <option key={unit.id} value={unit.id}>
            unit {index + 1}
          </option>
        ))}
      </select>
    </p>
  );
}

/** Which load the bank is looked at with. */
function LoadChoice({
  load,
  typed,
  onLoad,
  onTyped,
}: {
  readonly load: BankLoadChoice;
  readonly typed: string;
  readonly onLoad: (load: BankLoadChoice) => void;
  readonly onTyped: (typed: string) => void;
}) {
  return (
    <>
      <ToggleGroup.Root
        type="single"
        aria-label="Load on the bank"
        className="flex gap-1"
        value={load}
        onValueChange={(value) => onLoad(LOADS.find((one) => one.value === value)?.value ?? load)}
      >
        {LOADS.map(({ value, label }) => (
          <ToggleGroup.Item
            key={value}
            value={value}
            className="button data-[state=on]:bg-chosen data-[state=on]:font-bold"
          >
            {label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {load === 'typed' && (
        <label className="flex items-center gap-1">
          <span className="sr-only">Load on the AC side</span>
          <input
            className="input w-24! text-right"
            inputMode="decimal"
            value={typed}
            onChange={(event) => onTyped(event.target.value)}
          />
          W
        </label>
      )}
    </>
  );
}

/** The bank drawn as it lies, with the current of each module, and what would mend its sharing. */
function Sharing({ compiled }: { readonly compiled: CompiledStack }) {
  const { design, analysis } = useOpenJob();
  const [load, setLoad] = useState<BankLoadChoice>('continuous');
  const [typed, setTyped] = useState('3000');
  const [chosenId, setChosenId] = useState<string>();
  const [leadId, setLeadId] = useState<string>();
  const [bankOf, setBankOf] = useState<string>();
  const { stack } = compiled;
  const read = readNumber(typed);
  const typedW = read !== undefined && read >= 0 ? read : undefined;
  const shared = useBankShare(compiled, load, typedW, bankOf);
  const fixes = useMemo(() => sharingFixes(design, catalogueNow(), stack.id), [design, stack.id]);
  const bank = typeof stack.bank === 'object' ? stack.bank : undefined;
  if (bank === undefined) return null;
  if (shared.kind === 'none')
    return (
      <>
        <h3 className="font-semibold">Battery bank</h3>
        {isOwnBank(stack) && <p>Each of the {stack.units.length} inverters has a bank like this one.</p>}
        <FindingLines checks={ABOUT_THE_WHOLE} about={{ kind: 'stack', id: stack.id }} onlyTrouble />
      </>
    );
  const { defaults } = analysis.installation;
  const ofUnitId = shared.kind === 'known' ? shared.ofUnitId : undefined;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="flex-1 font-semibold">Battery bank as it lies</h3>
        <LoadChoice load={load} typed={typed} onLoad={setLoad} onTyped={setTyped} />
      </div>
      <div className="my-2 relative overflow-x-auto" tabIndex={-1}>
        {shared.kind === 'known' && shared.share.kind === 'solved' && (
          <BankDrawing
            stack={stack}
            bank={bank}
            circuit={shared.circuit}
            share={shared.share}
            limits={{
              tight: defaults.shareTight.value,
              over: defaults.shareLimit.value,
              durationS: shared.durationS,
            }}
            lostUnitId={shared.lostUnitId}
            ofUnitId={ofUnitId}
            onModule={setChosenId}
            onLead={setLeadId}
          />
        )}
        {shared.kind === 'no-load' && <p className="text-unknown">“{typed}” is not a load in W.</p>}
        {shared.kind === 'unknown' && (
          <p className="text-unknown">
            The current of each module is not known yet. Missing: {describePlaces(design, shared.missing)}.
          </p>
        )}
      </div>
      {leadId !== undefined && (
        <LeadEditor stack={stack} moduleId={leadId} onClose={() => setLeadId(undefined)} />
      )}
      {isOwnBank(stack) && (
        <OwnBanks stack={stack} shownId={ofUnitId} chosenId={bankOf} onChoose={setBankOf} />
      )}
      {shared.kind === 'known' && <Outcome shared={shared} />}
      <FindingLines checks={ABOUT_THE_WHOLE} about={{ kind: 'stack', id: stack.id }} onlyTrouble />
      <div className="mt-2">
        <JoiningForm stack={stack} />
      </div>
      <Fixes fixes={fixes} />
      <OneByOne stack={stack} chosenId={chosenId} />
    </>
  );
}

/** Everything about the bank of a stack: how it shares, what limits it, how it speaks, and how it is brought together. */
export function BankPanel({ compiled }: { readonly compiled: CompiledStack }) {
  const { stack } = compiled;
  if (typeof stack.bank !== 'object') return null;
  return (
    <section className="sheet mt-3 p-3" aria-label={`Battery bank of ${stack.name}`}>
      <Sharing compiled={compiled} />
      <BankLimits compiled={compiled} />
      <CommsPanel compiled={compiled} />
      <JoinPanel compiled={compiled} />
      <DriftPanel compiled={compiled} />
    </section>
  );
}
