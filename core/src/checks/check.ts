import type { Installation } from '../installation/installation.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import type { Mode } from '../modes/modes.ts';
import { uniquePaths } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import type { Finding, State, Subject, Working } from './finding.ts';

export type Family =
  | 'load'
  | 'surge'
  | 'balance'
  | 'grid'
  | 'stack'
  | 'bank'
  | 'generator'
  | 'pv'
  | 'place'
  | 'bonding'
  | 'wiring';

export interface CheckContext {
  readonly installation: Installation;
  readonly mode: Mode;
  /** Where somebody wants to see how a finding came about: filled with the working of each. */
  readonly workings?: Map<Finding, () => Working>;
}

/** A check is a value: what it is called, when it applies, its sentences, and a function from an installation to findings. */
export interface Check<Id extends string = string> {
  readonly id: Id;
  readonly title: string;
  readonly family: Family;
  /** The modes it looks at; 'once' where the mode makes no difference. */
  readonly modes: readonly ModeKind[] | 'once';
  /** One sentence per outcome, with {{placeholders}} for subject, value, limit, margin, missing and the finding's data. */
  readonly sentences: Readonly<Record<State, string>>;
  readonly run: (context: CheckContext) => Finding[];
}

/** What a check found about one subject, before it is judged. */
export interface Measurement {
  readonly subject: Subject;
  readonly value: number | undefined;
  readonly limit: number | undefined;
  readonly unit: string;
  readonly bound?: 'at-most' | 'at-least';
  /** False where a share of the limit says nothing (counts, temperatures): such a check passes or fails. */
  readonly graded?: boolean;
  /** Margin below which this measurement is tight, where the planning default says nothing about it. */
  readonly tightMargin?: number;
  /** Past its limit it wears or wastes and does not endanger: tight at worst. */
  readonly worst?: 'tight';
  readonly missing?: readonly Path[];
  readonly data?: Readonly<Record<string, string | number>>;
  readonly working: () => Working;
}

/** Room for rounding in a comparison, as a share of the limit. */
const ROUNDING = 1e-9;

function marginOf(value: number, limit: number, bound: 'at-most' | 'at-least'): number {
  const room = bound === 'at-most' ? limit - value : value - limit;
  if (limit === 0) return room === 0 ? 1 : Math.sign(room);
  return room / Math.abs(limit);
}

/**
 * Judges a measurement. With inputs missing, the answer is `unknown`, except where what is known already breaks an
 * upper limit: a sum that is over without its missing parts is over.
 */
export function judge(check: string, context: CheckContext, measured: Measurement): Finding {
  const { value, limit, unit, subject, working } = measured;
  const bound = measured.bound ?? 'at-most';
  const missing = uniquePaths(measured.missing ?? []);
  const margin = value === undefined || limit === undefined ? undefined : marginOf(value, limit, bound);
  const breaks = margin !== undefined && margin < -ROUNDING;
  let state: State;
  if (
    margin === undefined ||
    (missing.length > 0 && !(breaks && bound === 'at-most' && measured.worst === undefined))
  )
    state = 'unknown';
  else if (breaks) state = measured.worst ?? 'over';
  else if (
    measured.graded !== false &&
    margin < (measured.tightMargin ?? context.installation.defaults.tightMargin.value) - ROUNDING
  )
    state = 'tight';
  else state = 'within';
  const finding: Finding = {
    check,
    subject,
    mode: context.mode.id,
    state,
    value,
    limit,
    unit,
    bound,
    margin: measured.graded === false || state === 'unknown' ? undefined : margin,
    missing,
    data: measured.data ?? {},
  };
  context.workings?.set(finding, working);
  return finding;
}

export const NO_WORKING: Working = { steps: [], inputs: [], source: '', notes: [] };

/** A finding that cannot be judged for want of inputs. */
export function unknownFinding(
  check: string,
  context: CheckContext,
  subject: Subject,
  unit: string,
  missing: readonly Path[],
): Finding {
  return judge(check, context, {
    subject,
    value: undefined,
    limit: undefined,
    unit,
    missing,
    working: () => NO_WORKING,
  });
}
