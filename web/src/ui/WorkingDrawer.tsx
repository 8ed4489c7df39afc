import {
  checkById,
  describePlace,
  type Finding,
  formatNumber,
  formatQuantity,
  leadsToField,
  modesOf,
  sentenceOf,
  statedAt,
  substitute,
  type Working,
  workingOf,
  type WorkingStep,
} from '@bastion/core';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useEffect, useRef } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { z } from 'zod';
import { useDrawer } from '../state/drawer.ts';
import { useJob, useOpenJob } from '../state/job.ts';
import { fieldHref } from './fieldLinks.ts';
import { StateMark } from './StateMark.tsx';

function StepView({ step, jobId }: { readonly step: WorkingStep; readonly jobId: number }) {
  return (
    <section className="keep-together border-t border-rule py-3">
      <h3 className="font-semibold">{step.meaning}</h3>
      <p className="mt-1 font-mono text-[12.5px] break-words">
        {step.symbol} = {step.formula}
        <br />= {substitute(step)}
        <br />
        <strong>= {formatQuantity(step.value, step.unit)}</strong>
      </p>
      <table className="mt-2 w-full text-[13px]">
        <thead className="sr-only">
          <tr>
            <th>Symbol</th>
            <th>Meaning</th>
            <th>Value</th>
          </tr>
        </thead>
        <tbody>
          {step.symbols.map((one) => (
            <tr key={one.symbol}>
              <td className="pr-2 align-baseline font-mono">{one.symbol}</td>
              <td className="pr-2 align-baseline">
                {one.path === undefined ? (
                  one.meaning
                ) : (
                  <Link to={fieldHref(jobId, one.path)}>{one.meaning}</Link>
                )}
              </td>
              <td className="text-right align-baseline whitespace-nowrap">
                {formatNumber(one.value)} <span className="text-quiet">{one.unit}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Inputs({ working, jobId }: { readonly working: Working; readonly jobId: number }) {
  if (working.inputs.length === 0) return null;
  return (
    <section className="border-t border-rule py-3">
      <h3 className="font-semibold">What was typed</h3>
      <ul className="mt-1 text-[13px]">
        {working.inputs.map((input) => (
          <li key={input.path.join('/')} className="flex items-baseline justify-between gap-3">
            <Link to={fieldHref(jobId, input.path)}>{input.label}</Link>
            <span className="whitespace-nowrap">
              {input.value === undefined ? 'not known' : formatNumber(input.value)}{' '}
              <span className="text-quiet">{input.unit}</span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Where what a finding is about is stated, where its working names no figure of its own. */
function StatedAt({ finding, working }: { readonly finding: Finding; readonly working: Working }) {
  const { id, design, analysis } = useOpenJob();
  const places =
    finding.missing.length > 0 || leadsToField(working) ? [] : statedAt(finding, analysis.installation);
  if (places.length === 0) return null;
  return (
    <section className="border-t border-rule py-3">
      <h3 className="font-semibold">Where it is stated</h3>
      <ul className="mt-1 text-[13px]">
        {places.map(({ path, label }) => (
          <li key={path.join('/')}>
            <Link to={fieldHref(id, path)}>{label ?? describePlace(design, path)}</Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Derivation({ finding }: { readonly finding: Finding }) {
  const { id, design, analysis } = useOpenJob();
  const working = workingOf(finding, analysis.installation);
  return (
    <>
      {finding.missing.length > 0 && (
        <section className="border-t border-rule py-3">
          <h3 className="font-semibold">Missing</h3>
          <ul className="mt-1 text-[13px]">
            {finding.missing.slice(0, 30).map((path) => (
              <li key={path.join('/')}>
                <Link to={fieldHref(id, path)}>{describePlace(design, path)}</Link>
              </li>
            ))}
            {finding.missing.length > 30 && <li>and {finding.missing.length - 30} more</li>}
          </ul>
        </section>
      )}
      {working.steps.map((step) => (
        <StepView key={step.symbol} step={step} jobId={id} />
      ))}
      <Inputs working={working} jobId={id} />
      <StatedAt finding={finding} working={working} />
      {working.source !== '' && (
        <section className="border-t border-rule py-3 text-[13px]">
          <h3 className="font-semibold">Source</h3>
          <p>{working.source}</p>
          {working.notes.map((note, index) => (
            <p key={index} className="mt-1 text-quiet">
              {note}
            </p>
          ))}
        </section>
      )}
    </>
  );
}

const shownState = z.object({ working: z.literal(true) });

/** A working that is asked for is a step in the history: Back closes it, and Back from a field it led to shows it again. */
function useShown(): { readonly isShown: boolean; readonly close: () => void } {
  const asked = useDrawer((store) => store.asked);
  const location = useLocation();
  const navigate = useNavigate();
  const handled = useRef(asked);
  const isShown = shownState.safeParse(location.state).success;
  useEffect(() => {
    if (handled.current === asked) return;
    handled.current = asked;
    const { pathname, search } = location;
    void navigate({ pathname, search }, { state: { working: true } });
  }, [asked, location, navigate]);
  return { isShown, close: () => void navigate(-1) };
}

/** The derivation of a finding, from the side. Each input leads to the field it came from. */
export function WorkingDrawer() {
  const finding = useDrawer((store) => store.finding);
  const { isShown, close } = useShown();
  const { design, analysis } = useOpenJob();
  const modes = modesOf(analysis.installation);
  const modeLabel = (id: string): string => modes.find((mode) => mode.id === id)?.label ?? id;
  const ready = useJob((store) => store.state === 'open');
  if (finding === undefined || !isShown || !ready) return null;
  return (
    <Dialog.Root open onOpenChange={(isOpen) => !isOpen && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-30 bg-ink/25 dark:bg-black/50" />
        <Dialog.Content className="fixed inset-y-0 right-0 z-30 flex w-full max-w-[460px] flex-col border-l border-edge bg-sheet shadow-lg">
          <header className="flex items-start gap-3 border-b border-rule p-4">
            <div className="flex-1">
              <p className="text-quiet">{modeLabel(finding.mode)}</p>
              <Dialog.Title className="text-[17px] font-semibold">
                {checkById(finding.check).title}
              </Dialog.Title>
              <StateMark state={finding.state} />
            </div>
            <Dialog.Close className="button button-quiet" aria-label="Close the working">
              <X size={18} aria-hidden="true" />
            </Dialog.Close>
          </header>
          <div
            className="working-links flex-1 overflow-y-auto px-4 pb-6"
            tabIndex={0}
            role="region"
            aria-label="Working"
          >
            <Dialog.Description className="py-3 text-[15px]">
              {sentenceOf(design, finding)}
            </Dialog.Description>
            <Derivation finding={finding} />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
