import {
  type BankApart,
  clockOf,
  eventTeller,
  type OutageEvent,
  type OutageResult,
  type OutageRun,
  type Plant,
  runApart,
  runOutage,
  type Watch,
} from '@bastion/core';
import type { RehearsalVerdict } from './Verdict.tsx';

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
  readonly events: readonly OutageEvent[];
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
  const events: OutageEvent[] = [];
  const tell = eventTeller(plant, run);
  const lineVa = plant.generator?.lineVa ?? [];
  const isReached = (line: number): boolean => lineVa.length === 0 || (lineVa[line] ?? 0) > 0;
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
    events.push(...tell(minute, now));
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
  // What goes wrong first is told first.
  const first = start.state === 'over' ? `In the first seconds: ${start.words} ` : '';
  return {
    state: 'over',
    words: `${first}Dark after ${hours(result.lastedMinutes)}, at ${clockOf(run, Math.ceil(result.lastedMinutes))}${bad === undefined ? '' : `: ${bad.sentence.charAt(0).toLowerCase()}${bad.sentence.slice(1)}`}`,
  };
}
