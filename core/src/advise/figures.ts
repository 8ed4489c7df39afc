import { analyse, type Analysis } from '../analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Finding } from '../checks/finding.ts';
import { autonomy } from '../compile/autonomy.ts';
import type { Design } from '../design/schema.ts';
import type { Figures } from './proposal.ts';

const orNull = (value: number | undefined): number | null =>
  value === undefined || !Number.isFinite(value) ? null : value;

function leastMargin(findings: readonly Finding[], checks: readonly string[]): number | null {
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
    return found?.known === true ? [found.value.hours] : [];
  });
  return hours.length === 0 ? null : orNull(Math.min(...hours));
}

/** What an analysed design comes to. */
export function figuresOf(analysis: Analysis): Figures {
  const { findings, installation } = analysis;
  const lines = findings
    .filter((finding) => finding.check === 'load.continuous' && finding.mode === 'island')
    .map((finding) => ({
      stack: finding.subject.id.split('/')[0] ?? '',
      line: finding.subject.id.split('/')[1] ?? '',
      loadVa: orNull(finding.value),
      limitVa: orNull(finding.limit),
    }))
    .sort((a, b) => a.stack.localeCompare(b.stack) || a.line.localeCompare(b.line));
  const known = lines.flatMap((line) => (line.loadVa === null ? [] : [line.loadVa]));
  const counted = (state: Finding['state']): number =>
    findings.filter((finding) => finding.state === state).length;
  return {
    lines,
    worstLineVa: known.length === 0 ? null : Math.max(...known),
    startMargin: leastMargin(findings, ['surge.largest-start']),
    pickupMargin: leastMargin(findings, ['surge.cold-pickup', 'surge.staggered']),
    autonomyFromReserveH: autonomyH(analysis),
    backedUpCircuits: installation.stacks.reduce(
      (sum, compiled) => sum + (compiled.board.known ? compiled.board.value.circuits.length : 0),
      0,
    ),
    findings: { over: counted('over'), unknown: counted('unknown'), tight: counted('tight') },
  };
}

export const figuresOfDesign = (design: Design, catalogue: readonly EquipmentType[]): Figures =>
  figuresOf(analyse(design, catalogue));
