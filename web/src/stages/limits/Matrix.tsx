import { checkById, type Finding, formatQuantity, type Mode, modesOf } from '@bastion/core';
import { useMemo } from 'react';
import { useDrawer } from '../../state/drawer.ts';
import { useJob, useOpenJob } from '../../state/job.ts';
import { ratioOf } from '../../ui/FindingStrip.tsx';
import { HeadroomStrip } from '../../ui/HeadroomStrip.tsx';
import { StateMark } from '../../ui/StateMark.tsx';

/** A column of the matrix: one mode, or the loss of any one unit of the set, shown at its worst. */
interface Column {
  readonly key: string;
  readonly label: string;
  readonly modes: readonly Mode[];
}

function columnsOf(modes: readonly Mode[]): Column[] {
  const single = modes
    .filter((mode) => mode.kind !== 'unit-lost')
    .map((mode) => ({ key: mode.id, label: mode.label, modes: [mode] }));
  const lost = modes.filter((mode) => mode.kind === 'unit-lost');
  return lost.length === 0
    ? single
    : [...single, { key: 'unit-lost', label: 'One unit lost (worst)', modes: lost }];
}

const cellKey = (check: string, column: string): string => `${check}\n${column}`;

/** The worst finding of each check in each column. Findings come worst first, so the first one met is it. */
function worstByCell(findings: readonly Finding[], columns: readonly Column[]): Map<string, Finding> {
  const columnOf = new Map(columns.flatMap((column) => column.modes.map((mode) => [mode.id, column.key])));
  const worst = new Map<string, Finding>();
  for (const finding of findings) {
    const key = cellKey(finding.check, columnOf.get(finding.mode) ?? '');
    if (!worst.has(key)) worst.set(key, finding);
  }
  return worst;
}

function MatrixCell({ finding, column }: { readonly finding: Finding | undefined; readonly column: Column }) {
  const open = useDrawer((store) => store.open);
  const chooseMode = useJob((store) => store.chooseMode);
  if (finding === undefined) {
    return (
      <td className="border-l border-rule px-2 text-center text-quiet">
        <span aria-hidden="true">·</span>
        <span className="sr-only">does not apply</span>
      </td>
    );
  }
  const words = finding.margin === undefined ? finding.state : formatQuantity(finding.margin, 'fraction');
  return (
    <td className="border-l border-rule p-0">
      <button
        type="button"
        className="grid w-full grid-cols-[14px_minmax(44px,1fr)_52px] items-center gap-1.5 px-2 py-1.5 hover:bg-chosen"
        aria-label={`${checkById(finding.check).title}, ${column.label}: ${finding.state}, ${finding.subject.label}, ${words}. Show the working.`}
        onClick={() => {
          chooseMode(finding.mode);
          open(finding);
        }}
      >
        <StateMark state={finding.state} silent />
        {finding.margin === undefined && finding.state !== 'unknown' ? (
          // A count, a temperature or a choice: it passes or fails, and a share of its limit says nothing.
          <span
            className={`condensed col-span-2 text-left text-[12px] ${finding.state === 'over' ? 'font-semibold text-over' : 'text-quiet'}`}
          >
            {finding.state === 'over' ? 'fails' : finding.state}
          </span>
        ) : (
          <>
            <HeadroomStrip state={finding.state} ratio={ratioOf(finding)} />
            <span
              className={`condensed text-right text-[12px] ${finding.state === 'over' ? 'font-semibold text-over' : ''}`}
            >
              {finding.margin === undefined ? '' : words}
            </span>
          </>
        )}
      </button>
    </td>
  );
}

/** Check by mode: each cell a small headroom strip, sorted so that the worst is top left. */
export function Matrix() {
  const { analysis } = useOpenJob();
  const { findings, installation } = analysis;
  const { columns, worst, checks } = useMemo(() => {
    const all = columnsOf(modesOf(installation));
    const byCell = worstByCell(findings, all);
    const severity = (column: Column): number => {
      const place = findings.findIndex((finding) => column.modes.some((mode) => mode.id === finding.mode));
      return place === -1 ? Infinity : place;
    };
    return {
      columns: [...all].sort((a, b) => severity(a) - severity(b)),
      worst: byCell,
      // The order of first mention among the findings, which come worst first.
      checks: [...new Set(findings.map((finding) => finding.check))],
    };
  }, [findings, installation]);
  return (
    <div
      className="sheet relative overflow-x-auto"
      tabIndex={0}
      role="region"
      aria-label="Checks by operating mode"
    >
      <table className="w-full min-w-[760px]">
        <thead>
          <tr className="text-left text-quiet">
            <th className="px-3 py-2 font-medium">Check</th>
            {columns.map((column) => (
              <th key={column.key} className="condensed border-l border-rule px-2 py-2 font-medium">
                {column.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {checks.map((check) => (
            <tr key={check} className="border-t border-rule">
              <th scope="row" className="condensed px-3 text-left font-medium whitespace-nowrap">
                {checkById(check).title}
              </th>
              {columns.map((column) => (
                <MatrixCell
                  key={column.key}
                  column={column}
                  finding={worst.get(cellKey(check, column.key))}
                />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** How many findings there are in each state. */
export function countStates(findings: readonly Finding[]): Record<Finding['state'], number> {
  const counts = { over: 0, unknown: 0, tight: 0, within: 0 };
  for (const finding of findings) counts[finding.state] += 1;
  return counts;
}
