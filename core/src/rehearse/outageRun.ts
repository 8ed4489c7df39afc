import type { Chance } from './chance.ts';

/** What is played. */
export interface OutageRun {
  /** Season of the year, 0 to 72: five days each, from the first of January. */
  readonly season: number;
  /** Minute of the day at which the grid goes. */
  readonly startMinute: number;
  readonly minutes: number;
  readonly startSoc: number;
  /** Share of a clear sky, day by day; the last one stands for all later days. */
  readonly clearness: readonly number[];
  /** Load over its average. */
  readonly loadFactor: number;
  /** Chance on the load, quarter hour by quarter hour; without it the averages are played. */
  readonly chance: Chance | undefined;
  /** State of charge at which the generator starts and stops by itself, or is started and stopped by somebody. */
  readonly generatorFromSoc: number;
  readonly generatorToSoc: number;
  /** How long it takes until somebody has started a set by hand, minutes. */
  readonly handMinutes: number;
  /** A unit or a module that fails, and when. */
  readonly lose:
    | { readonly what: 'unit' | 'module'; readonly minute: number; readonly unitId?: string | undefined }
    | undefined;
}
