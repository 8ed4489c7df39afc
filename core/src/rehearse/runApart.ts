import type { BankApart } from './banksApart.ts';
import type { Watch } from './minute.ts';
import { beginQuarter, type OutageResult, resultOf } from './outage.ts';
import type { OutageRun } from './outageRun.ts';
import { NOBODY, OutageState } from './outageState.ts';
import type { Plant } from './plant.ts';
import { COMING, HYSTERESIS, OFF, playMinutes, ROUNDING, RUNNING } from './playMinutes.ts';
import { QUARTER } from './quarters.ts';

/** A bank while it is played. */
interface Playing {
  readonly bank: BankApart;
  plant: Plant;
  /** Units that share the load of its line. */
  count: number;
  readonly state: OutageState;
}

/** The one engine of them all: called by the first bank that wants it, let go when every bank that it reaches has enough. */
interface SharedEngine {
  phase: typeof OFF | typeof COMING | typeof RUNNING;
  waitMin: number;
  minutes: number;
  starts: number;
  /** Burnt while it idles; what it gives is burnt with the bank that it is given to. */
  idleL: number;
}

/** A bank with its part of the fuel: what the units that it stands for are given burns that much, and the engine idles once for all. */
const withOwnFuel = (plant: Plant, lPerKwh: number): Plant =>
  plant.generator === undefined
    ? plant
    : { ...plant, generator: { ...plant.generator, idleLPerH: 0, lPerKwh, fuelL: Infinity } };

/** What the engine burns for a kWh. By itself a bank counts as if all units that are reached were given what it is given. */
function lPerKwhOf(banks: readonly BankApart[]): number {
  const reached = banks.filter(({ plant }) => plant.generator !== undefined);
  const units = reached.reduce((sum, { unitIds }) => sum + unitIds.length, 0);
  return (reached[0]?.plant.generator?.lPerKwh ?? 0) / Math.max(1, units);
}

const wants = ({ state, plant }: Playing, { generatorFromSoc }: OutageRun): boolean =>
  (state.isDown && state.soc < plant.floorSoc + HYSTERESIS - ROUNDING) || state.soc <= generatorFromSoc;

/** What the engine does in the next minute. */
function lead(engine: SharedEngine, playing: readonly Playing[], run: OutageRun): void {
  const reached = playing.filter(({ plant, state }) => plant.generator !== undefined && !state.isStopped);
  const first = reached[0]?.bank.plant.generator;
  if (first === undefined) {
    engine.phase = OFF;
    return;
  }
  // What a bank that has stopped since was given is burnt all the same.
  const litres = engine.idleL + playing.reduce((sum, { state }) => sum + state.litres, 0);
  const hasFuel = litres < first.fuelL;
  if (engine.phase === OFF && hasFuel && reached.some((one) => wants(one, run))) {
    engine.phase = COMING;
    engine.waitMin = first.warmUpMin + (first.start === 'two-wire' ? 0 : run.handMinutes);
  } else if (engine.phase === COMING) engine.waitMin -= 1;
  if (engine.phase === COMING && engine.waitMin <= 0) {
    engine.phase = RUNNING;
    engine.starts += 1;
  }
  const isEnough = reached.every(({ state }) => state.soc >= run.generatorToSoc);
  if (engine.phase === RUNNING && (isEnough || !hasFuel)) engine.phase = OFF;
  if (engine.phase !== RUNNING) return;
  engine.minutes += 1;
  engine.idleL += first.idleLPerH / 60;
}

/** A unit fails: the others of its line share its load, a line without another is dark; or all of them stop. */
function fail(playing: readonly Playing[], unitId: string | undefined, lPerKwh: number): void {
  const hit = unitId === undefined ? playing[0] : playing.find(({ bank }) => bank.unitIds.includes(unitId));
  if (hit === undefined) return;
  const { bank, state, plant } = hit;
  if (plant.lostUnit === 'set-stops') {
    for (const one of playing) one.state.isStopped = true;
    return;
  }
  if (bank.withoutOne === undefined) {
    state.isStopped = true;
    return;
  }
  hit.count -= 1;
  hit.plant = withOwnFuel(bank.withoutOne, lPerKwh * hit.count);
  state.serve(state.live, state.servedSince, state.fedShare);
  state.servedSince = 0;
  state.live = NOBODY;
}

/**
 * Plays the banks of a set that are spent by themselves side by side, minute by minute. One engine charges all that it reaches and carries
 * their lines. Answers what each comes to, in their order; minutes, starts and litres of the engine are those of all together.
 *
 * @param watch sees the minutes of the bank at a place of the list.
 */
export function runApart(
  banks: readonly BankApart[],
  run: OutageRun,
  watch?: { readonly at: number; readonly see: Watch },
): readonly OutageResult[] {
  const lost = run.lose?.what === 'unit' ? run.lose : undefined;
  const lPerKwh = lPerKwhOf(banks);
  const how: OutageRun = {
    ...run,
    chance: run.chance && { ...run.chance },
    lose: lost === undefined ? run.lose : undefined,
  };
  const playing = banks.map((bank): Playing => {
    const count = bank.unitIds.length;
    const plant = withOwnFuel(bank.plant, lPerKwh * count);
    const state = new OutageState(plant, run);
    state.isLed = true;
    return { bank, plant, count, state };
  });
  const engine: SharedEngine = { phase: OFF, waitMin: 0, minutes: 0, starts: 0, idleL: 0 };
  const [first] = playing;
  for (let minute = 0; minute < run.minutes; minute += 1) {
    if (first !== undefined && minute % QUARTER === 0) beginQuarter(how, first.state, minute, undefined);
    if (minute === lost?.minute) fail(playing, lost.unitId, lPerKwh);
    lead(engine, playing, how);
    playing.forEach(({ plant, state }, at) => {
      state.factor = first?.state.factor ?? 1;
      state.engine = engine.phase === RUNNING && plant.generator !== undefined ? RUNNING : OFF;
      playMinutes(plant, how, state, minute, minute + 1, watch?.at === at ? watch.see : undefined);
    });
  }
  const litres = engine.idleL + playing.reduce((sum, { state }) => sum + state.litres, 0);
  return playing.map(({ state, bank }) => ({
    ...resultOf(state, run.minutes),
    ...(bank.plant.generator === undefined
      ? {}
      : { generatorMinutes: engine.minutes, generatorStarts: engine.starts, litres }),
  }));
}
