import { type Chance, next } from './chance.ts';
import {
  account,
  clear,
  type Energy,
  inWattHours,
  type Minute,
  noEnergy,
  noMinute,
  scaleTo,
} from './minute.ts';
import type { Plant } from './plant.ts';
import { MINUTES_OF_DAY, SEASONS } from './year.ts';

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
  readonly lose: { readonly what: 'unit' | 'module'; readonly minute: number } | undefined;
}

export interface OutageResult {
  readonly energy: Energy;
  /** Minutes each board was live, in the order of the boards; a part of a minute counts as that. */
  readonly boardMinutes: Float64Array;
  /** Minutes until the set went dark for the first time; all of them where it did not. */
  readonly lastedMinutes: number;
  readonly endSoc: number;
  readonly lowestSoc: number;
  readonly generatorMinutes: number;
  readonly generatorStarts: number;
  readonly litres: number;
  /** Minutes in which the load was more than the inverters, the bank or the generator give. */
  readonly overloadMinutes: number;
}

export type Watch = (minute: number, now: Readonly<Minute>) => void;

/** A stage comes back, and a set that was empty starts again, so far above the level at which it went. */
export const HYSTERESIS = 0.05;
/** The load of a quarter hour lies this far either way of its average at most. */
const LOAD_SPREAD = 0.3;
const QUARTER = 15;
const DAYS_OF_SEASON = 5;
const HOUR = 60;
/** Less than this is rounding, Wh. */
const NOTHING_WH = 1e-9;
/** And this of a state of charge. */
const ROUNDING = 1e-12;
const OFF = 0;
const COMING = 1;
const RUNNING = 2;

/** Everything that a run carries from one minute to the next. */
interface State {
  fullWh: number;
  heldWh: number;
  ratedW: number;
  idleW: number;
  mostDischargeW: number;
  mostChargeW: number;
  /** Empty, until the bank has recovered; or stopped for good. */
  isDown: boolean;
  isStopped: boolean;
  engine: typeof OFF | typeof COMING | typeof RUNNING;
  engineWait: number;
  engineMinutes: number;
  engineStarts: number;
  litres: number;
  overloads: number;
  factor: number;
  /** Minute of the day, day of the outage, season of the year. */
  at: number;
  day: number;
  season: number;
}

/** Efficiency of a unit at what it gives: straight between its points, flat outside. */
function efficiencyOf({ efficiencyW, efficiency, sharedBy }: Plant, watts: number): number {
  const each = watts / sharedBy;
  const last = efficiencyW.length - 1;
  if (last === 0 || each <= (efficiencyW[0] ?? 0)) return efficiency[0] ?? 1;
  for (let at = 1; at <= last; at += 1) {
    const high = efficiencyW[at] ?? 0;
    if (each > high) continue;
    const low = efficiencyW[at - 1] ?? 0;
    const from = efficiency[at - 1] ?? 1;
    return from + (((efficiency[at] ?? 1) - from) * (each - low)) / (high - low);
  }
  return efficiency[last] ?? 1;
}

const positive = (value: number): number => (value > 0 ? value : 0);
const least = (a: number, b: number): number => (a < b ? a : b);

/** A unit or a module is gone from now on. */
function lose(plant: Plant, state: State, sums: Energy, what: 'unit' | 'module'): void {
  if (what === 'module') {
    const left = (plant.moduleCount - 1) / plant.moduleCount;
    // What was in it is lost to this outage.
    sums.battery += state.heldWh * (1 - left) * HOUR;
    sums.losses += state.heldWh * (1 - left) * HOUR;
    state.fullWh *= left;
    state.heldWh *= left;
    state.mostDischargeW *= left;
    state.mostChargeW *= left;
    return;
  }
  if (plant.lostUnit === 'set-stops' || plant.unitCount === 1) {
    state.isStopped = true;
    return;
  }
  const left = (plant.unitCount - 1) / plant.unitCount;
  state.ratedW *= left;
  state.idleW *= left;
}

/** Called for by the level, there after a while, and gone when the bank is full enough or the fuel is not. */
function runEngine(plant: Plant, run: OutageRun, state: State, soc: number): boolean {
  const { generator } = plant;
  if (generator === undefined) return false;
  const hasFuel = state.litres < generator.fuelL;
  if (state.engine === OFF && hasFuel && (state.isDown || soc <= run.generatorFromSoc)) {
    state.engine = COMING;
    state.engineWait = generator.warmUpMin + (generator.start === 'two-wire' ? 0 : run.handMinutes);
  } else if (state.engine === COMING) state.engineWait -= 1;
  if (state.engine === COMING && state.engineWait <= 0) {
    state.engine = RUNNING;
    state.engineStarts += 1;
  }
  if (state.engine === RUNNING && (soc >= run.generatorToSoc || !hasFuel)) state.engine = OFF;
  return state.engine === RUNNING;
}

/** What is on by the level of the bank, and what it takes. */
function findLoad(
  plant: Plant,
  dropped: Uint8Array,
  now: Minute,
  { at, season, factor }: State,
  isRunning: boolean,
): void {
  now.wantedW = 0;
  now.loadW = 0;
  now.boards = 0;
  for (let index = 0; index < plant.boards.length; index += 1) {
    const board = plant.boards[index];
    if (board === undefined) continue;
    const level = board.shedBelowSoc;
    if (level !== undefined) {
      if (now.soc <= level) dropped[index] = 1;
      else if (now.soc >= level + HYSTERESIS - ROUNDING) dropped[index] = 0;
    }
    if (board.onlyWithGenerator && !isRunning) continue;
    const day = board.seasonW === undefined ? board.minuteW : board.seasonW[season];
    const watts = (day?.[at] ?? 0) * factor;
    now.wantedW += watts;
    if (dropped[index] === 1 && !isRunning) continue;
    now.loadW += watts;
    now.boards |= 1 << index;
  }
}

/** A dark set: sun on its DC side still covers what idles, and charges. */
function standDark(state: State, now: Minute, sunDcW: number): void {
  now.served = 0;
  if (state.isStopped || sunDcW <= state.idleW) return;
  const intoW = least(sunDcW - state.idleW, least(state.mostChargeW, (state.fullWh - state.heldWh) * HOUR));
  now.sunDcW = intoW + state.idleW;
  now.idleW = state.idleW;
  now.batteryW = -intoW;
}

/** An empty bank feeds nothing, not even what idles. */
function idleOnWhatIsThere(state: State, now: Minute): void {
  const mostW = positive(state.heldWh * HOUR);
  if (now.batteryW <= mostW) return;
  now.idleW -= now.batteryW - mostW;
  now.batteryW = mostW;
}

/** Nothing is served for this minute; what idles is covered by sun and bank. */
function openUp(state: State, now: Minute, sunDcW: number): void {
  state.overloads += 1;
  now.served = 0;
  now.sunAcW = 0;
  now.generatorW = 0;
  now.lossW = 0;
  now.idleW = state.idleW;
  now.sunDcW = least(sunDcW, state.idleW);
  now.batteryW = state.idleW - now.sunDcW;
  idleOnWhatIsThere(state, now);
}

/** A live set: the generator or the inverters carry the load, sun goes first, the bank gives or takes the rest. */
function carry(
  plant: Plant,
  state: State,
  now: Minute,
  sunDcW: number,
  sunAcW: number,
  isRunning: boolean,
): void {
  const { generator } = plant;
  let leftToChargeW = least(state.mostChargeW, positive((state.fullWh - state.heldWh) * HOUR));
  let intoW = 0;
  let restW = now.loadW;
  now.served = 1;
  if (isRunning && generator !== undefined) {
    if (now.loadW > generator.mostW) {
      openUp(state, now, sunDcW);
      return;
    }
    const offeredW = least(generator.chargeW, positive(generator.targetW - now.loadW));
    const efficiency = efficiencyOf(plant, offeredW);
    const dcW = least(offeredW * efficiency, leftToChargeW);
    now.generatorW = now.loadW + dcW / efficiency;
    now.lossW += dcW / efficiency - dcW;
    intoW += dcW;
    leftToChargeW -= dcW;
    restW = 0;
  } else if (now.loadW > state.ratedW) {
    openUp(state, now, sunDcW);
    return;
  }
  if (!isRunning || plant.acStaysWithGenerator) {
    const toLoadW = least(sunAcW, restW);
    restW -= toLoadW;
    const surplusW = sunAcW - toLoadW;
    const efficiency = efficiencyOf(plant, surplusW);
    const dcW = least(surplusW * efficiency, leftToChargeW);
    now.sunAcW = toLoadW + dcW / efficiency;
    now.lossW += dcW / efficiency - dcW;
    intoW += dcW;
    leftToChargeW -= dcW;
  }
  const outW = restW === 0 ? 0 : restW / efficiencyOf(plant, restW);
  now.lossW += outW - restW;
  now.idleW = state.idleW;
  const needW = outW + state.idleW;
  const directW = least(sunDcW, needW);
  const spareW = least(sunDcW - directW, leftToChargeW);
  now.sunDcW = directW + spareW;
  now.batteryW = needW - directW - spareW - intoW;
  if (now.batteryW > state.mostDischargeW) {
    openUp(state, now, sunDcW);
    return;
  }
  if (isRunning) {
    idleOnWhatIsThere(state, now);
    return;
  }
  const leftWh = state.heldWh - state.fullWh * plant.floorSoc;
  if (now.batteryW / HOUR <= leftWh + NOTHING_WH) return;
  // Dry in the middle of this minute: served so far, and no further.
  scaleTo(now, positive(leftWh * HOUR) / now.batteryW);
  state.isDown = true;
}

const startState = (plant: Plant, run: OutageRun): State => ({
  fullWh: plant.fullWh,
  heldWh: plant.fullWh * run.startSoc,
  ratedW: plant.ratedW,
  idleW: plant.idleW,
  mostDischargeW: plant.mostDischargeW,
  mostChargeW: plant.mostChargeW,
  isDown: false,
  isStopped: false,
  engine: OFF,
  engineWait: 0,
  engineMinutes: 0,
  engineStarts: 0,
  litres: 0,
  overloads: 0,
  factor: run.loadFactor,
  at: run.startMinute,
  day: 0,
  season: run.season,
});

/** Plays one minute; answers the sun that there was, used or not. */
function playMinute(
  plant: Plant,
  run: OutageRun,
  state: State,
  dropped: Uint8Array,
  now: Minute,
  minute: number,
): number {
  const { at, day } = state;
  if (run.chance !== undefined && minute % QUARTER === 0)
    state.factor = run.loadFactor * (1 + LOAD_SPREAD * (next(run.chance) + next(run.chance) - 1));
  clear(now, state.fullWh > 0 ? state.heldWh / state.fullWh : 0);
  if (state.isDown && now.soc >= plant.floorSoc + HYSTERESIS - ROUNDING) state.isDown = false;
  const isRunning = runEngine(plant, run, state, now.soc) && !state.isStopped;
  findLoad(plant, dropped, now, state, isRunning);
  const { season } = state;
  const sky = run.clearness[least(day, run.clearness.length - 1)] ?? 0;
  const sunDcW = (plant.sunDcW[season]?.[at] ?? 0) * sky;
  const sunAcW = (plant.sunAcW[season]?.[at] ?? 0) * sky;
  if (state.isStopped || (state.isDown && !isRunning)) standDark(state, now, sunDcW);
  else carry(plant, state, now, sunDcW, sunAcW, isRunning);
  const { generator } = plant;
  if (generator !== undefined && isRunning) {
    state.engineMinutes += 1;
    state.litres += (generator.idleLPerH + (generator.lPerKwh * now.generatorW) / 1000) / HOUR;
  }
  state.heldWh -= now.batteryW / HOUR;
  state.at += 1;
  if (state.at === MINUTES_OF_DAY) {
    state.at = 0;
    state.day += 1;
    state.season = (run.season + Math.floor(state.day / DAYS_OF_SEASON)) % SEASONS;
  }
  return sunDcW + sunAcW;
}

/**
 * Plays one outage minute by minute: what is on by the level of the bank, what sun and generator give, the rest from the bank within its
 * limits. A bank that runs dry in the middle of a minute serves that part of it. Nothing is allocated from minute to minute.
 */
export function runOutage(plant: Plant, run: OutageRun, watch?: Watch): OutageResult {
  const state = startState(plant, run);
  const sums = noEnergy();
  const now = noMinute();
  const dropped = new Uint8Array(plant.boards.length);
  const boardMinutes = new Float64Array(plant.boards.length);
  let lowestSoc = run.startSoc;
  let lasted = -1;
  for (let minute = 0; minute < run.minutes; minute += 1) {
    if (run.lose?.minute === minute) lose(plant, state, sums, run.lose.what);
    const sunW = playMinute(plant, run, state, dropped, now, minute);
    account(sums, now, sunW);
    for (let board = 0; board < boardMinutes.length; board += 1)
      if ((now.boards & (1 << board)) !== 0) boardMinutes[board] = (boardMinutes[board] ?? 0) + now.served;
    if (now.served < 1 && lasted < 0) lasted = minute + now.served;
    now.soc = state.fullWh > 0 ? state.heldWh / state.fullWh : 0;
    if (now.soc < lowestSoc) lowestSoc = now.soc;
    watch?.(minute, now);
  }
  return {
    energy: inWattHours(sums),
    boardMinutes,
    lastedMinutes: lasted < 0 ? run.minutes : lasted,
    endSoc: now.soc,
    lowestSoc,
    generatorMinutes: state.engineMinutes,
    generatorStarts: state.engineStarts,
    litres: state.litres,
    overloadMinutes: state.overloads,
  };
}
