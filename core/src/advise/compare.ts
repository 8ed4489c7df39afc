import type { Analysis } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { compareFindings } from '../checks/finding.ts';
import { CHECKS, type RegisteredFinding } from '../checks/registry.ts';
import { autonomy, quotedHours } from '../figures/bank/autonomy.ts';
import { partsOf } from '../schedules/parts.ts';
import { counted, formatQuantity } from '../words/quantity.ts';
import { figuresOf } from './figures.ts';

export type CompareGroup = 'findings' | 'headroom' | 'parts' | 'autonomy';

/** One line of a comparison: a cell for each variant, in words, with the finding behind it where there is one. */
export interface CompareRow {
  readonly group: CompareGroup;
  readonly label: string;
  readonly cells: readonly { readonly text: string; readonly finding?: RegisteredFinding }[];
  readonly differs: boolean;
}

const row = (group: CompareGroup, label: string, cells: CompareRow['cells']): CompareRow => ({
  group,
  label,
  cells,
  differs: cells.some(({ text }) => text !== cells[0]?.text),
});

const watts = (value: number | null, unit: string): string =>
  value === null ? 'not known' : formatQuantity(value, unit);

function worstOf(analysis: Analysis, check: string): RegisteredFinding | undefined {
  return analysis.findings.filter((finding) => finding.check === check).sort(compareFindings)[0];
}

function findingCell(finding: RegisteredFinding | undefined): CompareRow['cells'][number] {
  if (finding === undefined) return { text: 'does not apply' };
  const margin = finding.margin === undefined ? '' : `, ${formatQuantity(finding.margin, 'fraction')} margin`;
  return { text: `${finding.state}${margin}`, finding };
}

function autonomyRows(analyses: readonly Analysis[]): CompareRow[] {
  const worst = row('autonomy', 'From the reserve, worst hour', [
    ...analyses.map(({ installation }) => ({
      text:
        installation.stacks
          .map((compiled) => {
            const found = autonomy(compiled, 'reserve', 'average');
            if (found === undefined) return 'no battery';
            return found.known ? formatQuantity(quotedHours(found.value), 'h') : 'not known';
          })
          .join(', ') || 'no stack',
    })),
  ]);
  const byLoad = (['reserve', 'full'] as const).flatMap((from) =>
    (['average', 'expected-peak'] as const).map((load) => {
      const text = ({ installation }: Analysis): string =>
        installation.stacks
          .map((compiled) => {
            const found = autonomy(compiled, from, load);
            if (found === undefined) return 'no battery';
            return found.known ? formatQuantity(found.value.hours, 'h') : 'not known';
          })
          .join(', ') || 'no stack';
      const words = load === 'average' ? 'average load' : 'expected peak';
      return row('autonomy', `From ${from === 'full' ? 'full' : 'the reserve'}, ${words}`, [
        ...analyses.map((one) => ({ text: text(one) })),
      ]);
    }),
  );
  return [worst, ...byLoad];
}

/** Analysed variants side by side: what each finds at its worst, its headroom, its parts and how long it lasts. */
export function compareVariants(
  analyses: readonly Analysis[],
  catalogue: readonly EquipmentType[],
): CompareRow[] {
  const figures = analyses.map(figuresOf);
  const findings = CHECKS.flatMap((check) => {
    const worst = analyses.map((one) => worstOf(one, check.id));
    return worst.every((one) => one === undefined)
      ? []
      : [row('findings', check.title, worst.map(findingCell))];
  });
  const count = (state: 'over' | 'unknown' | 'tight'): CompareRow =>
    row(
      'findings',
      `Findings ${state}`,
      figures.map((one) => ({ text: String(one.findings[state]) })),
    );
  const lineNames = [...new Set(figures.flatMap((one) => one.lines.map(({ line }) => line)))].sort();
  const headroom = lineNames.map((name) =>
    row(
      'headroom',
      `Continuous load on ${name}`,
      figures.map((one) => {
        const line = one.lines.find((other) => other.line === name);
        if (line === undefined) return { text: 'no such line' };
        return { text: `${watts(line.loadVa, 'VA')} of ${watts(line.limitVa, 'VA')}` };
      }),
    ),
  );
  const margin = (label: string, key: 'startMargin' | 'pickupMargin'): CompareRow =>
    row(
      'headroom',
      label,
      figures.map((one) => ({ text: watts(one[key], 'fraction') })),
    );
  const parts = analyses.map(({ design }) => partsOf(design, catalogue));
  const partNames = [...new Set(parts.flatMap((list) => list.map(({ what }) => what)))];
  return [
    count('over'),
    count('unknown'),
    count('tight'),
    ...findings,
    ...headroom,
    margin('Margin of the largest start', 'startMargin'),
    margin('Margin of the pickup after a break', 'pickupMargin'),
    row(
      'headroom',
      'Backed up',
      figures.map((one) => ({ text: counted(one.backedUpCircuits, 'circuit') })),
    ),
    ...partNames.map((what) =>
      row(
        'parts',
        what,
        parts.map((list) => ({ text: String(list.find((one) => one.what === what)?.count ?? 'none') })),
      ),
    ),
    ...autonomyRows(analyses),
  ];
}
