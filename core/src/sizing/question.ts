import type { System } from '../figures/wiring/carried.ts';
import type { Insulation } from '../codes/cableKinds.ts';
import type { Laid } from '../codes/ampacity.ts';
import type { CodeProfileName } from '../codes/profile.ts';
import type { Path } from '../values/problem.ts';

/** A fault that a conductor must stand until something ends it. */
export interface Fault {
  readonly label: string;
  readonly currentA: number;
  /** What of it a protective conductor carries, where its line meets earth; undefined where that is not worked out. */
  readonly earthA?: number;
  readonly timeS: number;
  /** What may clear it where the plain formula does not, in words: such a fault is tight, not over. */
  readonly unless: string | undefined;
}

/** What the terminals at one end take. */
export interface TerminalRange {
  readonly label: string;
  readonly minMm2: number;
  readonly maxMm2: number;
}

/** Everything that the size of a conductor follows from. All currents are those of one line. */
export interface ConductorQuestion {
  readonly profile: CodeProfileName;
  readonly system: System;
  readonly laid: Laid;
  /** Conductors in parallel on each line. */
  readonly parallel: number;
  /** Load that stays for three hours and more, and what does not, A. */
  readonly continuousA: number;
  readonly passingA: number;
  /** Rating of the device ahead of it, A; undefined while there is none to hold against. */
  readonly deviceA: number | undefined;
  /** A fuse lets 1.6 times its rating pass in its conventional time, a breaker 1.45 times. */
  readonly isFuse: boolean;
  /** North American: the column that the terminals are marked for. */
  readonly terminalColumn: Extract<Insulation, '60C' | '75C'>;
  /** Line to neutral for one line, line to line for two and three, V. */
  readonly volts: number;
  readonly powerFactor: number;
  /** Undefined while nobody has said it: then no voltage is lost and no fault weakened that could be judged. */
  readonly lengthM: number | undefined;
  readonly isFlexible: boolean;
  readonly dropLimit: number;
  readonly start:
    { readonly currentA: number; readonly powerFactor: number; readonly dropLimit: number } | undefined;
  /** Faults at its far end, for a conductor of a size. */
  readonly faults: (areaMm2: number) => readonly Fault[];
  /** What is not stated of sources that could feed one: the faults above are only those of the others. */
  readonly faultsMissing: readonly Path[];
  readonly terminals: readonly TerminalRange[];
}

/** A way in which a size can be wrong. */
export type SizeTest =
  | 'load'
  | 'device'
  | 'overload'
  | 'terminal-column'
  | 'small-conductor'
  | 'parallel'
  | 'drop'
  | 'start-drop'
  | 'adiabatic'
  | 'terminal';

/** One test of one size: its figure against its limit. */
export interface SizeAnswer {
  readonly test: SizeTest;
  readonly state: 'within' | 'tight' | 'over';
  readonly value: number;
  readonly limit: number;
  readonly unit: 'A' | '' | 'mm²';
  /** The formula with its numbers in it: made for whoever asks, and few do. */
  readonly working: () => string;
}
