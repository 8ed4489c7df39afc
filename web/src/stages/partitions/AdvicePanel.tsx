import {
  adviseScope,
  type Advice,
  type AskedAdvice,
  type Design,
  diff,
  formatQuantity,
  type Proposal,
  SAMPLE_TYPES,
  type Scope,
  scopeOf,
} from '@bastion/core';
import { memo, useEffect, useMemo, useState } from 'react';
import { useOpenJob } from '../../state/job.ts';
import { ProposalView } from './ProposalView.tsx';
import { useAdvice } from './useAdvice.ts';
import { useAfterPaint } from '../../ui/useAfterPaint.ts';

const ASK: readonly { readonly kind: AskedAdvice; readonly label: string; readonly what: string }[] = [
  { kind: 'balance', label: 'Balance the lines', what: 'Fewest moves that lower the most loaded line' },
  { kind: 'partition', label: 'Choose what to back up', what: 'By importance, under every limit' },
  {
    kind: 'charger',
    label: 'Set the charger',
    what: 'Largest charging from the generator that keeps its loading target',
  },
  {
    kind: 'stagger',
    label: 'Stagger the starts',
    what: 'Delays that keep the pickup under the overload curve',
  },
];

/** The trade-off at a glance: what each number of moves does to the most loaded line. */
function TradeOff({
  proposals,
  chosen,
  onChoose,
}: {
  readonly proposals: readonly Proposal[];
  readonly chosen: Proposal | undefined;
  readonly onChoose: (proposal: Proposal) => void;
}) {
  const before = proposals[0]?.before.worstLineVa ?? null;
  const most = Math.max(before ?? 0, ...proposals.map((one) => one.after.worstLineVa ?? 0), 1);
  const bar = (va: number | null) => (
    <div className="h-2.5 bg-ink" style={{ width: `${(100 * (va ?? 0)) / most}%` }} />
  );
  return (
    <table className="w-full" aria-label="Most loaded line by number of moves">
      <thead>
        <tr className="text-left text-quiet">
          <th className="font-medium">Proposal</th>
          <th className="text-right font-medium">Most loaded line</th>
          <th>
            <span className="sr-only">To scale</span>
          </th>
        </tr>
      </thead>
      <tbody>
        <tr className="border-t border-rule">
          <td className="py-1">As it is: 0 moves</td>
          <td className="text-right">{before === null ? 'not known' : formatQuantity(before, 'VA')}</td>
          <td className="w-1/3 pl-3">{bar(before)}</td>
        </tr>
        {proposals.map((one) => (
          <tr
            key={one.id + one.title}
            className={`border-t border-rule ${one === chosen ? 'bg-chosen' : ''}`}
          >
            <td className="py-0.5">
              <button
                type="button"
                className="button button-quiet px-0!"
                aria-pressed={one === chosen}
                onClick={() => onChoose(one)}
              >
                {one.title}
              </button>
            </td>
            <td className="text-right">
              {one.after.worstLineVa === null ? 'not known' : formatQuantity(one.after.worstLineVa, 'VA')}
            </td>
            <td className="w-1/3 pl-3">{bar(one.after.worstLineVa)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Of the best for each number of moves, the first that is nearly as good as the best of all: moves cost work on site. */
const NEARLY = 1.02;
function firstNearBest(proposals: readonly Proposal[]): Proposal | undefined {
  const bestVa = Math.min(...proposals.map((one) => one.after.worstLineVa ?? Infinity));
  return proposals.find((one) => (one.after.worstLineVa ?? Infinity) <= bestVa * NEARLY) ?? proposals.at(-1);
}

function Ready({
  advice,
  design,
  onDone,
}: {
  readonly advice: Advice;
  readonly design: Design;
  readonly onDone: () => void;
}) {
  const { proposals, notes, kind } = advice;
  const [picked, setPicked] = useState<Proposal>();
  const chosen = picked ?? (kind === 'balance' ? firstNearBest(proposals) : proposals[0]);
  return (
    <div className="grid gap-3">
      {notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {(kind === 'balance' ? proposals.length > 0 : proposals.length > 1) && (
        <TradeOff proposals={proposals} chosen={chosen} onChoose={setPicked} />
      )}
      {chosen !== undefined && (
        <section aria-label={chosen.title}>
          <h3 className="mb-1 font-semibold">{chosen.title}</h3>
          <ProposalView key={chosen.id + chosen.title} proposal={chosen} design={design} onDone={onDone} />
        </section>
      )}
      {proposals.length === 0 && (
        <div>
          <button type="button" className="button" onClick={onDone}>
            Close
          </button>
        </div>
      )}
    </div>
  );
}

const SCOPE_WORDS: Record<Scope, string> = {
  whole: 'Back up the whole building',
  partial: 'Back up a part of the building',
};

/** Advice on the board: asked for, worked out beside the page, looked at in place, and accepted or left. */
export function AdvicePanel() {
  const { design, canEdit } = useOpenJob();
  const shown = useAfterPaint(design);
  return canEdit ? <Panel design={shown} /> : null;
}

const Panel = memo(function Panel({ design }: { readonly design: Design }) {
  const { state, ask, callOff, close, show } = useAdvice();
  const now = scopeOf(design);
  const other: Scope = now === 'whole' ? 'partial' : 'whole';
  const isOld = useMemo(
    () => state.kind === 'ready' && state.design !== design && diff(state.design, design).length > 0,
    [state, design],
  );
  // Advice on a design that has changed since is advice on something else.
  useEffect(() => {
    if (isOld) close();
  }, [isOld, close]);
  return (
    <section className="no-print sheet mb-3 p-3" aria-label="Advice">
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="mr-1">Advice</h2>
        {ASK.map(({ kind, label, what }) => (
          <button
            key={kind}
            type="button"
            className="button"
            title={what}
            disabled={state.kind === 'working'}
            onClick={() => void ask(kind, design)}
          >
            {label}
          </button>
        ))}
        <span className="flex-1" />
        <span className="text-quiet">
          Now: {now === 'whole' ? 'the whole building' : 'a part of the building'}
        </span>
        <button
          type="button"
          className="button"
          onClick={() => show('partition', adviseScope(design, SAMPLE_TYPES, other), design)}
        >
          {SCOPE_WORDS[other]}…
        </button>
      </div>
      {state.kind === 'working' && (
        <div className="mt-2 flex items-center gap-3" role="status">
          <progress className="w-60" value={state.share} aria-label="Progress" />
          Working it out: {Math.round(100 * state.share)} %
          <button type="button" className="button" onClick={callOff}>
            Call it off
          </button>
        </div>
      )}
      {state.kind === 'failed' && (
        <p role="alert" className="mt-2 font-semibold text-over">
          {state.message}
        </p>
      )}
      {state.kind === 'ready' && !isOld && (
        <div className="mt-3 border-t border-rule pt-3">
          <Ready key={state.asked} advice={state.advice} design={state.design} onDone={close} />
        </div>
      )}
    </section>
  );
});
