import type { Strain } from './strain.ts';

/** Watt-hours by where they come from and where they go: sun + generator + battery = served + losses + idle. */
export interface Energy {
  served: number;
  unserved: number;
  sunDc: number;
  sunAc: number;
  curtailed: number;
  generator: number;
  losses: number;
  idle: number;
  /** Taken from the battery, less what was put in. */
  battery: number;
}

/** One minute as it was played. */
export interface Minute {
  soc: number;
  /** Wanted by everything that should be live, and by what is on. */
  wantedW: number;
  loadW: number;
  /** Share of the minute in which what is on was served. */
  served: number;
  sunDcW: number;
  sunAcW: number;
  /** What the sun would give beside it. */
  curtailedW: number;
  generatorW: number;
  /** Out of the bank; below nought while it is charged. */
  batteryW: number;
  lossW: number;
  idleW: number;
  /** One bit for each board that is on. */
  boards: number;
  /** Whether a generator carries the load. */
  isRunning: boolean;
  /** Whether the fuel at hand for it is spent. */
  isFuelSpent: boolean;
  /** Whether it has stopped for good, with a unit that failed. */
  isStopped: boolean;
  /** What the boards that are on ask of the set, by minute of the day; this minute of it, and how its load lies to the average. */
  strain: Strain;
  at: number;
  factor: number;
}

export type Watch = (minute: number, now: Readonly<Minute>) => void;
