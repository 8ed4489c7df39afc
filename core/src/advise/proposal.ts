import type { Edit } from '../design/edits.ts';

export type AdviceKind = 'balance' | 'partition' | 'stagger' | 'charger' | 'scope';

/** What a design comes to, as far as a proposal can change it. Null: not known, or nothing to say. */
export interface Figures {
  readonly lines: readonly {
    readonly stack: string;
    readonly line: string;
    readonly loadVa: number | null;
    readonly limitVa: number | null;
  }[];
  /** The most loaded line, VA. */
  readonly worstLineVa: number | null;
  /** Smallest margin to the overload curve, as a share of what is allowed: largest start, and pickup after a break. */
  readonly startMargin: number | null;
  readonly pickupMargin: number | null;
  readonly autonomyFromReserveH: number | null;
  readonly backedUpCircuits: number;
  readonly findings: { readonly over: number; readonly unknown: number; readonly tight: number };
}

/** One thing that can be accepted by itself. */
export interface ProposalPart {
  readonly id: string;
  readonly label: string;
  readonly edits: readonly Edit[];
}

/** A list of edits with its effect. Nothing is changed until somebody accepts it, in whole or in part. */
export interface Proposal {
  readonly id: string;
  readonly kind: AdviceKind;
  readonly title: string;
  /** What it is based on and what it does not cover, in sentences. */
  readonly notes: readonly string[];
  readonly parts: readonly ProposalPart[];
  /** All edits of all parts. */
  readonly edits: readonly Edit[];
  readonly before: Figures;
  readonly after: Figures;
}

/** What advice comes to: proposals, or the reason why there are none. */
export interface Advice {
  readonly kind: AdviceKind;
  readonly proposals: readonly Proposal[];
  readonly notes: readonly string[];
}
