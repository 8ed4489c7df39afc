import { cos, log } from '../values/elementary.ts';

/** A stream of numbers in [0, 1) that is the same for the same seed on every machine. */
export interface Chance {
  /** 32 bits of state. */
  state: number;
}

/** A stream for one run of many: streams of neighbouring runs have nothing to do with each other (splitmix of seed and number). */
export function chanceOf(seed: number, run: number): Chance {
  let mixed = (seed ^ Math.imul(run + 1, 0x9e3779b9)) >>> 0;
  mixed = Math.imul(mixed ^ (mixed >>> 16), 0x85ebca6b) >>> 0;
  mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35) >>> 0;
  return { state: (mixed ^ (mixed >>> 16)) >>> 0 };
}

/** The next number of a stream (mulberry32: 32 bits of state, all of its period). */
export function next(chance: Chance): number {
  chance.state = (chance.state + 0x6d2b79f5) >>> 0;
  let mixed = chance.state;
  mixed = Math.imul(mixed ^ (mixed >>> 15), mixed | 1);
  mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
  return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
}

/** A number of the standard normal distribution (Box and Muller; the second of the pair is left). */
export function normal(chance: Chance): number {
  const one = 1 - next(chance);
  return Math.sqrt(-2 * log(one)) * cos(2 * Math.PI * next(chance));
}
