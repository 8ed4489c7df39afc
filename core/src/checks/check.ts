import type { Installation } from '../installation/installation.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import type { Mode } from '../modes/modes.ts';
import { uniquePaths } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import type { Finding, Found, State, Subject, Unjudged, Words, Working } from './finding.ts';

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

/** What every sentence may name without a word from its check. */
type Given = 'subject' | 'value' | 'limit' | 'margin' | 'missing';

/** The names in a sentence that stand in double braces. */
type Placeholders<Sentence extends string> = Sentence extends `${string}{{${infer Name}}}${infer Rest}`
  ? Name | Placeholders<Rest>
  : never;

/** Of those what the check has to bring along. */
export type Own<Sentence extends string> = Exclude<Placeholders<Sentence>, Given>;

/** The sentence of what is not known names nothing that a check would have to know first. */
type Plain<Sentence extends string> = [Own<Sentence>] extends [never] ? string : never;

/**
 * A check whose findings bring a word for every placeholder of its sentences: one that is missing, or misspelt on either side, does not
 * compile.
 */
export const checkOf = <Id extends string, const S extends Readonly<Record<State, string>>>(
  check: Omit<Check<Id>, 'sentences' | 'run'> & {
    readonly sentences: S & { readonly unknown: Plain<S['unknown']> };
    readonly run: (context: CheckContext) => Found<Own<S['over' | 'tight' | 'within']>>[];
  },
): Check<Id> => check;

/** What a check found about one subject, before it is judged. */
export interface Measurement<Key extends string = never> {
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
  readonly data?: Words<Key>;
  readonly working: () => Working;
}

/** A measurement without a figure to judge: it comes out as not known, and needs no words. */
export interface Unmeasured extends Measurement {
  readonly value: undefined;
  readonly data?: never;
}

export type Measured<Key extends string = never> = Measurement<Key> | Unmeasured;

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
export function judge<Key extends string = never>(
  check: string,
  context: CheckContext,
  measured: Measured<Key>,
): Found<Key>;
export function judge(check: string, context: CheckContext, measured: Measurement<string>): Finding {
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
): Unjudged {
  const finding = judge(check, context, {
    subject,
    value: undefined,
    limit: undefined,
    unit,
    missing,
    working: () => NO_WORKING,
  });
  return Object.assign(finding, { state: 'unknown' as const });
}
