import { type BoardBits, boardBits } from './boardBits.ts';
import type { OutageRun } from './outageRun.ts';
import type { Plant } from './plant.ts';
import type { Gone, Strain } from './strain.ts';
import { MINUTES_OF_DAY } from './year.ts';

/** No set of boards: what is on has to be looked up. */
export const NOBODY = -1;
export const NO_SUN = new Float64Array(MINUTES_OF_DAY);
const UNASKED: Strain = { most: NO_SUN, lines: [], loadW: NO_SUN, withEngine: NO_SUN, engineW: NO_SUN };

/** What is carried from one minute of an outage to the next, and the sums so far. */
export class OutageState {
  fullWh: number;
  restingW: number;
  mostDischargeW: number;
  mostChargeW: number;
  heldWh: number;
  /** Divisions are dear: what is divided by again and again is divided once. */
  perFull: number;
  /** Of most types one efficiency is known. */
  readonly flat: number;
  readonly perFlat: number;
  /** As it is asked for: a level that it begins at is reached, whatever a product rounds to. */
  soc: number;
  isDown = false;
  isStopped = false;
  /** 0 stands, 1 is called for, 2 runs. */
  engine = 0;
  engineWait = 0;
  /** Somebody else calls the engine, for several banks together. */
  isLed = false;
  factor: number;
  /** Minute of the day, days since the beginning, season of the year. */
  at: number;
  day = 0;
  season: number;
  sky: number;
  dcDay: Float64Array;
  acDay: Float64Array;
  /** Stages that the level of the bank has dropped, as bits. */
  dropped = 0;
  /** What is on: which boards, since when, and what they ask for by minute of the day. */
  gone: Gone = undefined;
  fedShare: readonly number[];
  live = NOBODY;
  servedSince = 0;
  strain: Strain = UNASKED;
  wanted = NOBODY;
  /** What everything that should be on asks for. */
  asked: Strain = UNASKED;
  readonly bits: BoardBits;
  /** The quarter hours of what is on, of what should be, and of the sun; and whose they are. */
  quartersOf: Strain = UNASKED;
  loadQuarters: Float64Array = NO_SUN;
  askedQuartersOf: Strain = UNASKED;
  askedQuarters: Float64Array = NO_SUN;
  sunOf = -1;
  sunQuarters: Float64Array = NO_SUN;
  readonly boardMinutes: Float64Array;

  engineMinutes = 0;
  engineStarts = 0;
  litres = 0;
  overloads = 0;
  lowestSoc: number;
  /** Minutes until the set went dark; below nought while it has not. */
  lasted = -1;
  // Watts minute by minute, made watt-hours at the end.
  sumServed = 0;
  sumUnserved = 0;
  sumSunDc = 0;
  sumSunAc = 0;
  sumCurtailed = 0;
  sumGenerator = 0;
  sumLosses = 0;
  sumIdle = 0;
  sumBattery = 0;

  constructor(plant: Plant, run: OutageRun) {
    this.fullWh = plant.fullWh;
    this.restingW = plant.idleW;
    this.mostDischargeW = plant.mostDischargeW;
    this.mostChargeW = plant.mostChargeW;
    this.heldWh = plant.fullWh * run.startSoc;
    this.perFull = plant.fullWh > 0 ? 1 / plant.fullWh : 0;
    this.flat = plant.efficiency[0] ?? 1;
    this.perFlat = 1 / this.flat;
    this.soc = run.startSoc;
    this.lowestSoc = run.startSoc;
    this.factor = run.loadFactor;
    this.at = run.startMinute;
    this.season = run.season;
    this.sky = run.clearness[0] ?? 0;
    this.dcDay = plant.sunDcW[run.season] ?? NO_SUN;
    this.acDay = plant.sunAcW[run.season] ?? NO_SUN;
    this.bits = boardBits(plant);
    this.fedShare = this.bits.allFed;
    this.boardMinutes = new Float64Array(plant.boards.length);
  }

  /** The same at this moment, to go on by itself. */
  copy(plant: Plant, run: OutageRun): OutageState {
    return Object.assign(new OutageState(plant, run), this, { boardMinutes: this.boardMinutes.slice() });
  }

  /** Gives the boards that were on the minutes in which they were served: of each the part that was fed. */
  serve(live: number, minutes: number, fedShare: readonly number[]): void {
    if (live === NOBODY) return;
    const { boardMinutes } = this;
    for (let index = 0; index < boardMinutes.length; index += 1)
      if ((live & (1 << index)) !== 0)
        boardMinutes[index] = (boardMinutes[index] ?? 0) + minutes * (fedShare[index] ?? 1);
  }
}
