import { modesOf } from '../modes/modes.ts';
import { statedOf } from '../installation/stated.ts';
import type { Analysis } from './analyse.ts';
import type { State } from './finding.ts';
import { sentenceOf } from './sentence.ts';

/** The findings of a design as plain JSON: what the command line prints. */
export interface CheckReport {
  readonly format: 1;
  readonly modes: readonly { readonly id: string; readonly label: string }[];
  readonly findings: readonly {
    readonly check: string;
    readonly subject: string;
    readonly mode: string;
    readonly state: State;
    readonly value: number | null;
    readonly limit: number | null;
    readonly unit: string;
    readonly margin: number | null;
    readonly message: string;
  }[];
}

export function checkReport({ installation, findings }: Analysis): CheckReport {
  const finite = (value: number | undefined): number | null =>
    value === undefined || !Number.isFinite(value) ? null : value;
  return {
    format: 1,
    modes: modesOf(installation).map(({ id, label }) => ({ id, label })),
    findings: findings.map((finding) => ({
      check: finding.check,
      subject: finding.subject.label,
      mode: finding.mode,
      state: finding.state,
      value: finite(finding.value),
      limit: finite(finding.limit),
      unit: finding.unit,
      margin: finite(finding.margin),
      message: sentenceOf(statedOf(installation), finding),
    })),
  };
}
