import { acceptanceOf } from '../checks/accepted.ts';
import type { Analysis } from '../checks/analyse.ts';
import { analysisCauses, type Cause } from '../checks/causes.ts';
import type { State } from '../checks/finding.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import { sentenceOf } from '../checks/sentence.ts';
import type { Severity } from '../checks/severity.ts';
import { verdictOf } from '../checks/verdict.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import type { Edit } from '../design/edits.ts';
import type { Installation } from '../installation/installation.ts';
import { statedOf } from '../installation/stated.ts';
import { modesOf } from '../modes/modes.ts';
import { decidesOn, type MendEffect, mendsOf } from './mends/mendsOf.ts';

/** A finding as plain JSON. */
export interface ReportedFinding {
  readonly check: string;
  readonly subject: string;
  readonly mode: string;
  readonly state: State;
  readonly value: number | null;
  readonly limit: number | null;
  readonly unit: string;
  readonly margin: number | null;
  readonly message: string;
  /** Who has accepted it and why, where somebody has. */
  readonly accepted?: { readonly by: string; readonly reason: string; readonly at: string };
}

export interface ReportedCause {
  readonly id: string;
  readonly state: State;
  readonly severity: Severity;
  readonly title: string;
  readonly accepted: boolean;
  /** How many findings come from it. */
  readonly count: number;
  readonly modes: readonly string[];
  readonly worst: ReportedFinding;
  /** Id of the cause that brings it; null for a root. */
  readonly follows: string | null;
  readonly mends: readonly {
    readonly title: string;
    readonly edits: readonly Edit[];
    readonly after: MendEffect;
  }[];
  readonly decides: 'design' | 'customer';
}

/** The findings of a design as plain JSON: what the command line prints. */
export interface CheckReport {
  readonly format: 1;
  readonly modes: readonly { readonly id: string; readonly label: string }[];
  readonly verdict: string;
  readonly causes: readonly ReportedCause[];
  /** Places of figures that the program began with and nobody has looked at yet. */
  readonly firstValues: readonly string[];
  readonly findings: readonly ReportedFinding[];
}

const finite = (value: number | undefined): number | null =>
  value === undefined || !Number.isFinite(value) ? null : value;

function reported(installation: Installation, finding: RegisteredFinding): ReportedFinding {
  const accepted = acceptanceOf(installation, finding);
  return {
    check: finding.check,
    subject: finding.subject.label,
    mode: finding.mode,
    state: finding.state,
    value: finite(finding.value),
    limit: finite(finding.limit),
    unit: finding.unit,
    margin: finite(finding.margin),
    message: sentenceOf(statedOf(installation), finding),
    ...(accepted === undefined
      ? {}
      : { accepted: { by: accepted.by, reason: accepted.reason, at: accepted.at } }),
  };
}

function reportedCause(analysis: Analysis, cause: Cause, catalogue: readonly EquipmentType[]): ReportedCause {
  const mends = cause.follows === undefined ? mendsOf(cause, analysis, catalogue) : [];
  return {
    id: cause.id,
    state: cause.state,
    severity: cause.severity,
    title: cause.title,
    accepted: cause.accepted,
    count: cause.findings.length,
    modes: cause.modes,
    worst: reported(analysis.installation, cause.worst),
    follows: cause.follows ?? null,
    mends: mends.map(({ title, edits, after }) => ({ title, edits, after })),
    decides: decidesOn(cause, mends),
  };
}

export function checkReport(analysis: Analysis, catalogue: readonly EquipmentType[]): CheckReport {
  const { installation, findings } = analysis;
  const causes = analysisCauses(analysis);
  return {
    format: 1,
    modes: modesOf(installation).map(({ id, label }) => ({ id, label })),
    verdict: verdictOf(installation, causes),
    causes: causes.map((cause) => reportedCause(analysis, cause, catalogue)),
    firstValues: installation.firstValues.map((path) => path.join('/')),
    findings: findings.map((finding) => reported(installation, finding)),
  };
}
