import type { Path } from '../design/problem.ts';

/** Outcome of one check on one subject in one mode. `tight` passes with less than the stated margin. */
export type State = 'over' | 'tight' | 'within' | 'unknown';

export interface Subject {
  readonly kind:
    'design' | 'stack' | 'line' | 'bank' | 'generator' | 'array' | 'controller' | 'service' | 'place';
  readonly id: string;
  readonly label: string;
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

/** A finding is data. Its sentence is made last, by `sentenceOf`; its working only when somebody asks. */
export interface Finding {
  readonly check: string;
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
  readonly data: Readonly<Record<string, string | number>>;
  readonly working: () => Working;
}

const RANK: Record<State, number> = { over: 0, unknown: 1, tight: 2, within: 3 };

/** Worst first: over, then unknown, tight, within; inside each, the smaller margin first. */
export function compareFindings(a: Finding, b: Finding): number {
  return RANK[a.state] - RANK[b.state] || (a.margin ?? 0) - (b.margin ?? 0);
}

export const STATES: readonly State[] = ['over', 'unknown', 'tight', 'within'];
