import {
  analyse,
  applyEdits,
  type Design,
  type Edit,
  type Figures,
  figuresOf,
  formatQuantity,
  type Proposal,
  readDesign,
  SAMPLE_TYPES,
} from '@bastion/core';
import { useEffect, useMemo, useState } from 'react';
import { useGhost } from '../../state/ghost.ts';
import { useJob } from '../../state/job.ts';

/** The edits of a proposal that every part needs, such as a new board: those that no part holds. */
function sharedEdits(proposal: Proposal): readonly Edit[] {
  const inParts = new Set(proposal.parts.flatMap((part) => part.edits.map((edit) => JSON.stringify(edit))));
  const touched = new Set(
    proposal.parts.flatMap((part) => part.edits.map((edit) => `${edit.op} ${edit.path.join('/')}`)),
  );
  return proposal.edits.filter(
    (edit) => !inParts.has(JSON.stringify(edit)) && !touched.has(`${edit.op} ${edit.path.join('/')}`),
  );
}

/** The design with the chosen parts of a proposal, and the edits that lead there. */
function withParts(
  design: Design,
  proposal: Proposal,
  left: ReadonlySet<string>,
): { design: Design; edits: readonly Edit[] } | undefined {
  const edits =
    left.size === 0
      ? proposal.edits
      : [
          ...sharedEdits(proposal),
          ...proposal.parts.filter((part) => !left.has(part.id)).flatMap((part) => part.edits),
        ];
  const applied = applyEdits(design, edits);
  if (!applied.ok) return undefined;
  const read = readDesign(applied.value, SAMPLE_TYPES);
  return read.ok ? { design: read.value, edits } : undefined;
}

const words = (value: number | null, unit: string): string =>
  value === null ? 'not known' : formatQuantity(value, unit);

function FigureRow({
  label,
  before,
  after,
  better,
}: {
  readonly label: string;
  readonly before: string;
  readonly after: string;
  readonly better?: boolean | undefined;
}) {
  return (
    <tr className="border-t border-rule">
      <th scope="row" className="py-0.5 text-left font-normal">
        {label}
      </th>
      <td className="pl-2 text-right whitespace-nowrap">{before}</td>
      <td className={`pl-2 text-right whitespace-nowrap ${before === after ? '' : 'font-semibold'}`}>
        {after}
      </td>
      <td className="w-20 pl-2 text-[12px] text-quiet">
        {before === after || better === undefined ? '' : better ? 'better' : 'worse'}
      </td>
    </tr>
  );
}

const lower = (a: number | null, b: number | null): boolean | undefined =>
  a === null || b === null ? undefined : b < a;

function FigureTable({ before, after }: { readonly before: Figures; readonly after: Figures }) {
  const higher = (a: number | null, b: number | null): boolean | undefined => lower(b, a);
  return (
    <table className="condensed w-full">
      <thead>
        <tr className="text-quiet">
          <th className="text-left font-medium">In island</th>
          <th className="text-right font-medium">Now</th>
          <th className="text-right font-medium">With it</th>
          <th>
            <span className="sr-only">Better or worse</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {before.lines.map((line) => {
          const then = after.lines.find((one) => one.stack === line.stack && one.line === line.line);
          return (
            <FigureRow
              key={`${line.stack} ${line.line}`}
              label={`Load on ${line.line}`}
              before={words(line.loadVa, 'VA')}
              after={words(then?.loadVa ?? null, 'VA')}
            />
          );
        })}
        <FigureRow
          label="Most loaded line"
          before={words(before.worstLineVa, 'VA')}
          after={words(after.worstLineVa, 'VA')}
          better={lower(before.worstLineVa, after.worstLineVa)}
        />
        <FigureRow
          label="Margin, largest start"
          before={words(before.startMargin, 'fraction')}
          after={words(after.startMargin, 'fraction')}
          better={higher(before.startMargin, after.startMargin)}
        />
        <FigureRow
          label="Margin, pickup after a break"
          before={words(before.pickupMargin, 'fraction')}
          after={words(after.pickupMargin, 'fraction')}
          better={higher(before.pickupMargin, after.pickupMargin)}
        />
        <FigureRow
          label="Autonomy from the reserve"
          before={words(before.autonomyFromReserveH, 'h')}
          after={words(after.autonomyFromReserveH, 'h')}
          better={higher(before.autonomyFromReserveH, after.autonomyFromReserveH)}
        />
        <FigureRow
          label="Circuits backed up"
          before={String(before.backedUpCircuits)}
          after={String(after.backedUpCircuits)}
        />
        <FigureRow
          label="Findings over"
          before={String(before.findings.over)}
          after={String(after.findings.over)}
          better={lower(before.findings.over, after.findings.over)}
        />
        <FigureRow
          label="Findings unknown"
          before={String(before.findings.unknown)}
          after={String(after.findings.unknown)}
          better={lower(before.findings.unknown, after.findings.unknown)}
        />
      </tbody>
    </table>
  );
}

interface ProposalViewProps {
  readonly proposal: Proposal;
  /** The design the proposal was made for. */
  readonly design: Design;
  readonly onDone: () => void;
}

/** A proposal in full: what it does part by part, before and after. Parts can be left out; nothing changes until it is accepted. */
export function ProposalView({ proposal, design, onDone }: ProposalViewProps) {
  const apply = useJob((store) => store.apply);
  const showGhost = useGhost((store) => store.show);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const result = useMemo(() => withParts(design, proposal, left), [design, proposal, left]);
  const after = useMemo(
    () =>
      result === undefined
        ? undefined
        : left.size === 0
          ? proposal.after
          : figuresOf(analyse(result.design, SAMPLE_TYPES)),
    [result, left, proposal],
  );
  useEffect(() => {
    showGhost(result?.design);
    return () => showGhost(undefined);
  }, [result, showGhost]);
  const taken = proposal.parts.length - left.size;
  const accept = (): void => {
    if (result !== undefined && apply(proposal.title, result.edits).length === 0) onDone();
  };
  return (
    <div className="grid gap-3">
      <ul className="grid gap-0.5">
        {proposal.notes.map((note) => (
          <li key={note}>{note}</li>
        ))}
      </ul>
      <div className="grid gap-4 lg:grid-cols-2">
        <fieldset>
          <legend className="font-semibold">
            {taken} of {proposal.parts.length} taken
          </legend>
          <ul className="max-h-60 overflow-y-auto">
            {proposal.parts.map((part) => (
              <li key={part.id}>
                <label className="flex min-h-7 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={!left.has(part.id)}
                    onChange={() =>
                      setLeft((now) => {
                        const next = new Set(now);
                        if (!next.delete(part.id)) next.add(part.id);
                        return next;
                      })
                    }
                  />
                  {part.label}
                </label>
              </li>
            ))}
          </ul>
        </fieldset>
        {after === undefined ? (
          <p className="font-semibold text-over">These parts cannot be taken without the others.</p>
        ) : (
          <FigureTable before={proposal.before} after={after} />
        )}
      </div>
      <div className="flex gap-2">
        <button
          type="button"
          className="button button-main"
          disabled={result === undefined || (taken === 0 && proposal.parts.length > 0)}
          onClick={accept}
        >
          {left.size === 0 ? 'Accept' : `Accept ${taken} of ${proposal.parts.length}`}
        </button>
        <button type="button" className="button" onClick={onDone}>
          Leave it as it is
        </button>
      </div>
    </div>
  );
}
