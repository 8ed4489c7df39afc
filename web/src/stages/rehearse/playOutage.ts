import {
  type BankApart,
  type Minute,
  type OutageResult,
  type OutageRun,
  type Plant,
  runApart,
  runOutage,
  type Watch,
} from '@bastion/core';
import type { RehearsalVerdict } from './Verdict.tsx';

/** A bank this little above its floor is empty, share of it. */
const NEARLY = 0.005;

/** One outage as it was played, in columns by minute. */
export interface Played {
  readonly result: OutageResult;
  readonly soc: Float64Array;
  readonly wantedW: Float64Array;
  readonly servedW: Float64Array;
  readonly sunW: Float64Array;
  readonly generatorW: Float64Array;
  /** Out of the bank; below nought while it is charged. */
  readonly batteryW: Float64Array;
  /** Share of each minute in which the set was live, whatever hung on it. */
  readonly live: Float64Array;
  readonly boards: Uint32Array;
  /** What is asked of each line, as a share of what the inverters bear for long on it; empty where no line is looked at by itself. */
  readonly lineShare: readonly Float64Array[];
  readonly events: readonly PlayedEvent[];
}

export interface PlayedEvent {
  readonly minute: number;
  readonly sentence: string;
  readonly isBad: boolean;
}

/** Why a set goes dark in a minute. */
function whyDark(plant: Plant, now: Readonly<Minute>): string {
  if (now.isStopped)
    return plant.lostUnit === 'set-stops' && plant.unitCount > 1
      ? 'A unit fails, and the set stops with it.'
      : 'The unit fails, and no other feeds this.';
  const { lines, most, engineW, loadW } = now.strain;
  const worst = (most[now.at] ?? 0) * now.factor;
  // On lines that the generator does not reach the inverters are asked.
  const isReached = (engineW[now.at] ?? 0) >= (loadW[now.at] ?? 0);
  if (now.isRunning && (isReached || worst <= 1)) return 'The load is more than the generator gives.';
  if (worst > 1) {
    const line = lines.findIndex((one) => (one[now.at] ?? 0) * now.factor >= worst);
    const name = plant.limits?.names[line];
    return name === undefined || lines.length < 2
      ? 'The load is more than the inverters give.'
      : `${name} is asked for more than the inverters give on it.`;
  }
  return now.soc > plant.floorSoc + NEARLY ? 'The load is more than the bank gives.' : 'The bank is empty.';
}

/** What changes from one minute to the next, in words. */
function changes(
  plant: Plant,
  before: Minute | undefined,
  now: Readonly<Minute>,
  minute: number,
): PlayedEvent[] {
  const events: PlayedEvent[] = [];
  const tell = (sentence: string, isBad = false): void => void events.push({ minute, sentence, isBad });
  const wasLit = before === undefined || before.served > 0;
  const isLit = now.served > 0;
  if (wasLit && !isLit) tell(whyDark(plant, now), true);
  if (!wasLit && isLit) tell('Live again.');
  if (now.generatorW > 0 && (before?.generatorW ?? 0) === 0)
    tell('The generator carries the load and charges.');
  if (now.generatorW === 0 && (before?.generatorW ?? 0) > 0) tell('The generator stops.');
  plant.boards.forEach(({ name, shedBelowSoc }, board) => {
    if (shedBelowSoc === undefined || before === undefined || !wasLit || !isLit) return;
    const was = (before.boards & (1 << board)) !== 0;
    const is = (now.boards & (1 << board)) !== 0;
    if (was && !is) tell(`${name} is shed.`);
    if (!was && is) tell(`${name} is back.`);
  });
  return events;
}

/** Somebody who keeps every minute that is seen. */
function keeper(
  plant: Plant,
  run: OutageRun,
): { readonly see: Watch; readonly kept: Omit<Played, 'result'> } {
  const column = (): Float64Array => new Float64Array(run.minutes);
  const soc = column();
  const wantedW = column();
  const servedW = column();
  const sunW = column();
  const generatorW = column();
  const batteryW = column();
  const live = column();
  const boards = new Uint32Array(run.minutes);
  const lineShare = (plant.limits?.names ?? []).map(column);
  const events: PlayedEvent[] = [];
  const lineVa = plant.generator?.lineVa ?? [];
  const isReached = (line: number): boolean => lineVa.length === 0 || (lineVa[line] ?? 0) > 0;
  let before: Minute | undefined;
  const see: Watch = (minute, now) => {
    soc[minute] = now.soc;
    wantedW[minute] = now.wantedW;
    servedW[minute] = now.loadW * now.served;
    sunW[minute] = now.sunDcW + now.sunAcW;
    generatorW[minute] = now.generatorW;
    batteryW[minute] = now.batteryW;
    live[minute] = now.served;
    boards[minute] = now.served > 0 ? now.boards : 0;
    if (now.served > 0)
      lineShare.forEach((shares, line) => {
        // What a running generator reaches the inverters do not carry.
        if (now.isRunning && isReached(line)) return;
        shares[minute] = (now.strain.lines[line]?.[now.at] ?? 0) * now.factor;
      });
    events.push(...changes(plant, before, now, minute));
    before = now;
  };
  return {
    see,
    kept: { soc, wantedW, servedW, sunW, generatorW, batteryW, live, boards, lineShare, events },
  };
}

/** Plays an outage and keeps every minute of it. */
export function playOutage(plant: Plant, run: OutageRun): Played {
  const { see, kept } = keeper(plant, run);
  return { result: runOutage(plant, run, see), ...kept };
}

/** The same of one bank among several that are spent by themselves. */
export function playBank(apart: readonly BankApart[], at: number, run: OutageRun): Played | undefined {
  const bank = apart[at];
  if (bank === undefined) return undefined;
  const { see, kept } = keeper(bank.plant, run);
  const result = runApart(apart, run, { at, see })[at];
  return result && { result, ...kept };
}

/** "18:00", with the day where it is not the first. */
export function clockOf(run: OutageRun, minute: number): string {
  const at = run.startMinute + minute;
  const day = Math.floor(at / 1440);
  const clock = `${String(Math.floor((at % 1440) / 60)).padStart(2, '0')}:${String(Math.floor(at % 60)).padStart(2, '0')}`;
  return day === 0 ? clock : `${clock}, day ${day + 1}`;
}

/**
 * What came of it: the first thing that goes wrong, or that nothing does. Hours are worth what the first seconds leave of them: where
 * those trip, or are not known, or something is left out, no outage is carried without more ado.
 */
export function verdictOf(
  { result, events }: Played,
  run: OutageRun,
  { leftOut }: Plant,
  start: RehearsalVerdict,
): RehearsalVerdict {
  const hours = (minutes: number): string => `${Math.round((minutes / 60) * 100) / 100} h`;
  const bad = events.find(({ isBad }) => isBad);
  if (result.lastedMinutes >= run.minutes) {
    const lowest = `the bank is at ${Math.round(result.lowestSoc * 100)} % at its lowest`;
    if (start.state !== 'within')
      return {
        state: start.state,
        words: `The energy lasts to its end, ${hours(run.minutes)} (${lowest}), but in the first seconds: ${start.words}`,
      };
    return {
      state: leftOut.length > 0 ? 'unknown' : 'within',
      words: `Carried to its end, ${hours(run.minutes)}; ${lowest}, within the figures entered${leftOut.length > 0 ? ' and without what is left out' : ''}.`,
    };
  }
  return {
    state: 'over',
    words: `Dark after ${hours(result.lastedMinutes)}, at ${clockOf(run, result.lastedMinutes)}${bad === undefined ? '' : `: ${bad.sentence.charAt(0).toLowerCase()}${bad.sentence.slice(1)}`}`,
  };
}
