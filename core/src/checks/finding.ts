import type { Path } from '../values/problem.ts';

/** Outcome of one check on one subject in one mode. `tight` passes with less than the stated margin. */
export type State = 'over' | 'tight' | 'within' | 'unknown';

export type SubjectKind =
  | 'design'
  | 'stack'
  | 'line'
  | 'bank'
  | 'generator'
  | 'array'
  | 'controller'
  | 'service'
  | 'place'
  | 'part'
  | 'start-case';

/** A thing by its kind and id; an id is compared whole and never taken apart. */
export interface Ref {
  readonly kind: SubjectKind | 'unit' | 'partition' | 'supply-line';
  readonly id: string;
}

export interface Subject {
  readonly kind: SubjectKind;
  readonly id: string;
  readonly label: string;
  /** What else it is about: the set a line belongs to, both ends of a gap. */
  readonly about?: readonly Ref[];
}

/** A letter of a formula with its number and where the number comes from. */
export interface WorkingSymbol {
  readonly symbol: string;
  readonly meaning: string;
  readonly value: number;
  readonly unit: string;
  /** The field it was typed in, if it was typed. */
  readonly path?: Path;
}

/** One line of arithmetic. `formula` uses only its symbols, numbers, and + − · / ( ) √ max min | |. */
export interface WorkingStep {
  readonly symbol: string;
  readonly meaning: string;
  readonly formula: string;
  readonly symbols: readonly WorkingSymbol[];
  readonly value: number;
  readonly unit: string;
}

/** A typed figure that a sum is made of. */
export interface WorkingInput {
  readonly label: string;
  readonly path: Path;
  readonly value: number | undefined;
  readonly unit: string;
}

/** The whole derivation of a finding, down to what was typed. */
export interface Working {
  readonly steps: readonly WorkingStep[];
  readonly inputs: readonly WorkingInput[];
  readonly source: string;
  readonly notes: readonly string[];
}

/** What a check puts into its sentences beside the figures, by the names of their placeholders. */
export type Words<Key extends string> = Readonly<Record<Key, string | number>>;

/** A finding is data. Its sentence is made last, by `sentenceOf`; its working when somebody asks, by `workingOf`. */
export interface Finding<Id extends string = string> {
  readonly check: Id;
  readonly subject: Subject;
  readonly mode: string;
  readonly state: State;
  /** For `unknown`: the part that is known, if there is one. */
  readonly value: number | undefined;
  readonly limit: number | undefined;
  readonly unit: string;
  /** Which way the limit points. */
  readonly bound: 'at-most' | 'at-least';
  /** Share of the limit that is left; negative when over. Undefined where a share has no meaning. */
  readonly margin: number | undefined;
  readonly missing: readonly Path[];
  readonly data: Words<string>;
}

/** A finding with a word for each placeholder of some names. */
export interface Worded<Key extends string> extends Finding {
  readonly data: Words<string> & Words<Key>;
}

/** A finding that nothing could be judged of: its sentence needs no words of its own. */
export interface Unjudged extends Finding {
  readonly state: 'unknown';
}

/** What a check finds whose sentences have placeholders of some names: words for each of them, or nothing that could be judged. */
export type Found<Key extends string = never> = Worded<Key> | Unjudged;

/** Whether two findings are about the same thing. */
export const isSameSubject = (a: Ref, b: Ref): boolean => a.kind === b.kind && a.id === b.id;

/** Whether a finding is about a thing, or about a part of it. */
export const concerns = (subject: Subject, ref: Ref): boolean =>
  isSameSubject(subject, ref) || subject.about?.some((one) => isSameSubject(one, ref)) === true;

/** One word for a subject, for keys of lists and maps. */
export const subjectKey = (subject: Ref): string => `${subject.kind} ${subject.id}`;

const RANK: Record<State, number> = { over: 0, unknown: 1, tight: 2, within: 3 };

/** Worst first: over, then unknown, tight, within; inside each, the smaller margin first. */
export function compareFindings(a: Finding, b: Finding): number {
  return RANK[a.state] - RANK[b.state] || (a.margin ?? 0) - (b.margin ?? 0);
}

export const STATES: readonly State[] = ['over', 'unknown', 'tight', 'within'];
