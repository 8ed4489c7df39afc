import type { HourTrace } from './bands.ts';
import type { Energy, Watch } from './minute.ts';
import type { OutageRun } from './outageRun.ts';
import { OutageState } from './outageState.ts';
import { playMinutes } from './playMinutes.ts';
import type { Plant } from './plant.ts';

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

/** Plays one outage minute by minute. */
export function runOutage(plant: Plant, run: OutageRun, watch?: Watch, trace?: HourTrace): OutageResult {
  const { minutes } = run;
  const state = new OutageState(plant, run);
  for (let from = 0; from < minutes; from += HOUR)
    playMinutes(plant, run, state, from, Math.min(from + HOUR, minutes), watch, trace);
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
