import { QUARTER_SPREAD } from '../figures/loads/rehearsedLoad.ts';
import type { HourTrace } from './bands.ts';
import { next } from './chance.ts';
import type { Energy, Watch } from './minute.ts';
import type { OutageRun } from './outageRun.ts';
import { OutageState } from './outageState.ts';
import { playMinutes } from './playMinutes.ts';
import { playQuarter } from './playQuarter.ts';
import type { Plant } from './plant.ts';
import { QUARTER } from './quarters.ts';

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

const HOUR = 60;

/** Draws the load of a quarter of an hour, and notes how the set stands at a full hour. */
export function beginQuarter(
  { chance, loadFactor }: OutageRun,
  state: OutageState,
  from: number,
  trace: HourTrace | undefined,
): void {
  if (chance !== undefined)
    state.factor = loadFactor * (1 + QUARTER_SPREAD * (next(chance) + next(chance) - 1));
  if (trace === undefined || from % HOUR !== 0) return;
  trace.soc[from / HOUR] = state.soc;
  trace.dark[from / HOUR] = state.isDown || state.isStopped ? 1 : 0;
}

/** Plays one outage: quarter hours in which nothing happens in one step, all others minute by minute. */
export function runOutage(plant: Plant, asked: OutageRun, watch?: Watch, trace?: HourTrace): OutageResult {
  // The same run can be played again: chance is drawn from a copy.
  const run: OutageRun = { ...asked, chance: asked.chance && { ...asked.chance } };
  const { minutes } = run;
  const state = new OutageState(plant, run);
  for (let from = 0; from < minutes; from += QUARTER) {
    beginQuarter(run, state, from, trace);
    const to = Math.min(from + QUARTER, minutes);
    const before = watch === undefined ? undefined : state.copy(plant, run);
    const isEven = to - from === QUARTER && playQuarter(plant, run, state, from);
    if (!isEven) playMinutes(plant, run, state, from, to, watch);
    // Who watches sees the minutes of an even quarter as well; what is carried on is the same whether anybody watches or not.
    else if (before !== undefined) playMinutes(plant, run, before, from, to, watch);
  }
  return resultOf(state, minutes);
}

/** What an outage of so many minutes has come to. */
export function resultOf(state: OutageState, minutes: number): OutageResult {
  state.serve(state.live, state.servedSince, state.fedShare);
  return {
    energy: {
      served: state.sumServed / HOUR,
      unserved: state.sumUnserved / HOUR,
      sunDc: state.sumSunDc / HOUR,
      sunAc: state.sumSunAc / HOUR,
      curtailed: state.sumCurtailed / HOUR,
      generator: state.sumGenerator / HOUR,
      losses: state.sumLosses / HOUR,
      idle: state.sumIdle / HOUR,
      battery: state.sumBattery / HOUR,
    },
    boardMinutes: state.boardMinutes,
    lastedMinutes: state.lasted < 0 ? minutes : state.lasted,
    endSoc: state.soc,
    lowestSoc: state.lowestSoc,
    generatorMinutes: state.engineMinutes,
    generatorStarts: state.engineStarts,
    litres: state.litres,
    overloadMinutes: state.overloads,
  };
}
