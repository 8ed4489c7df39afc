import type { CompiledStack } from '../installation/installation.ts';
import { islandBoard } from '../figures/loads/boards.ts';
import type { Analysis } from '../checks/analyse.ts';
import type { Ref, Subject } from '../checks/finding.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import { autonomy, quotedHours } from '../figures/bank/autonomy.ts';
import type { Figures } from './proposal.ts';

const orNull = (value: number | undefined): number | null =>
  value === undefined || !Number.isFinite(value) ? null : value;

function leastMargin(findings: readonly RegisteredFinding[], checks: readonly string[]): number | null {
  const margins = findings.flatMap((finding) =>
    checks.includes(finding.check) && finding.mode === 'island' && finding.margin !== undefined
      ? [finding.margin]
      : [],
  );
  return margins.length === 0 ? null : Math.min(...margins);
}

/** Shortest autonomy from the reserve of any stack with a battery, h. */
function autonomyH({ installation }: Analysis): number | null {
  const hours = installation.stacks.flatMap((compiled) => {
    const found = autonomy(compiled, 'reserve', 'average');
    return found?.known === true ? [quotedHours(found.value)] : [];
  });
  return hours.length === 0 ? null : orNull(Math.min(...hours));
}

const refOf = (subject: Subject, kind: Ref['kind']): string =>
  subject.about?.find((one) => one.kind === kind)?.id ?? '';

function backedUpCircuits(compiled: CompiledStack): number {
  const board = islandBoard(compiled);
  return board.known ? board.value.circuits.length : 0;
}

/** What an analysed design comes to. */
export function figuresOf(analysis: Analysis): Figures {
  const { findings, installation } = analysis;
  const lines = findings
    .filter((finding) => finding.check === 'load.continuous' && finding.mode === 'island')
    .map((finding) => ({
      stack: refOf(finding.subject, 'stack'),
      line: refOf(finding.subject, 'supply-line'),
      loadVa: orNull(finding.value),
      limitVa: orNull(finding.limit),
    }))
    .sort((a, b) => a.stack.localeCompare(b.stack) || a.line.localeCompare(b.line));
  const known = lines.flatMap((line) => (line.loadVa === null ? [] : [line.loadVa]));
  const counted = (state: RegisteredFinding['state']): number =>
    findings.filter((finding) => finding.state === state).length;
  return {
    lines,
    worstLineVa: known.length === 0 ? null : Math.max(...known),
    startMargin: leastMargin(findings, ['surge.largest-start']),
    pickupMargin: leastMargin(findings, ['surge.cold-pickup', 'surge.staggered']),
    autonomyFromReserveH: autonomyH(analysis),
    backedUpCircuits: installation.stacks.reduce((sum, compiled) => sum + backedUpCircuits(compiled), 0),
    findings: { over: counted('over'), unknown: counted('unknown'), tight: counted('tight') },
  };
}
