import type { OutageRun } from './outageRun.ts';
import { NOBODY, type OutageState } from './outageState.ts';
import type { Plant } from './plant.ts';
import { COMING, HYSTERESIS, NOTHING_WH, OFF, ROUNDING, RUNNING } from './playMinutes.ts';
import {
  AC_LEAST,
  AC_MOST,
  AC_SUM,
  DC_LEAST,
  DC_MOST,
  DC_SUM,
  ENGINE_STRAIN_MOST,
  LAST_QUARTER,
  LOAD_LEAST,
  LOAD_MOST,
  LOAD_STRIDE,
  LOAD_SUM,
  loadQuarters,
  QUARTER,
  REACHED_MOST,
  REST_LEAST,
  REST_MOST,
  REST_SUM,
  STRAIN_MOST,
  SUN_STRIDE,
  sunQuarters,
} from './quarters.ts';

const PER_HOUR = QUARTER / 60;
const PER_MINUTE = 1 / 60;

const positive = (value: number): number => (value > 0 ? value : 0);
const least = (a: number, b: number): number => (a < b ? a : b);
const most = (a: number, b: number): number => (a > b ? a : b);

/** Whether no stage goes or comes back between two levels of the bank. */
function staysOn({ bits, dropped }: OutageState, lowSoc: number, highSoc: number): boolean {
  const { stageSoc, stageBit } = bits;
  for (let stage = 0; stage < stageSoc.length; stage += 1) {
    const level = stageSoc[stage] ?? 0;
    const isDropped = (dropped & (stageBit[stage] ?? 0)) !== 0;
    if (isDropped ? highSoc >= level + HYSTERESIS - ROUNDING : lowSoc <= level) return false;
  }
  return true;
}

/** A dark set: nothing is served. Sun on its DC side covers what idles, and charges; a stopped one does nothing at all. */
function playDark(plant: Plant, state: OutageState): boolean {
  const { at, sky, restingW, heldWh, fullWh, mostChargeW } = state;
  const { generator } = plant;
  if (state.lasted < 0) return false;
  // It would be called.
  if (generator !== undefined && state.engine === OFF && state.litres < generator.fuelL) return false;
  const sun = state.sunQuarters;
  const s = at * SUN_STRIDE;
  const dcMost = (sun[s + DC_MOST] ?? 0) * sky;
  const dcAll = (sun[s + DC_SUM] ?? 0) * sky;
  const acAll = (sun[s + AC_SUM] ?? 0) * sky;
  const isCharged = !state.isStopped && dcMost > restingW;
  let highSoc = state.soc;
  let intoSum = 0;
  if (isCharged) {
    const intoMost = dcMost - restingW;
    if ((sun[s + DC_LEAST] ?? 0) * sky < restingW || intoMost > mostChargeW) return false;
    const highWh = heldWh + intoMost * PER_HOUR;
    if (highWh > fullWh) return false;
    highSoc = most(highSoc, highWh * state.perFull);
    intoSum = dcAll - restingW * QUARTER;
  }
  if (state.isDown && highSoc >= plant.floorSoc + HYSTERESIS - ROUNDING) return false;
  if (!staysOn(state, state.soc, highSoc)) return false;
  const idleSum = isCharged ? restingW * QUARTER : 0;
  state.sumUnserved += askedOver(state) * state.factor;
  state.sumSunDc += intoSum + idleSum;
  state.sumCurtailed += dcAll + acAll - intoSum - idleSum;
  state.sumIdle += idleSum;
  state.sumBattery -= intoSum;
  state.heldWh = heldWh + intoSum * PER_MINUTE;
  state.soc = state.heldWh * state.perFull;
  state.lowestSoc = least(state.lowestSoc, state.soc);
  state.at = at + QUARTER;
  return true;
}

/**
 * Plays a quarter of an hour in one step where nothing happens in it: what is on stays on, no limit is met, the bank reaches none of its
 * levels, and so all that flows is in proportion to load and sun. Then the sums over its minutes are those of its loads and of its sun.
 * Answers false, and has changed nothing, where that cannot be said from the least and the most of its minutes: they are then played one
 * by one.
 */
export function playQuarter(plant: Plant, run: OutageRun, state: OutageState, from: number): boolean {
  const { engine, at, factor, heldWh, fullWh, perFull, mostChargeW, restingW } = state;
  if (engine === COMING || state.live === NOBODY || at >= LAST_QUARTER) return false;
  const isRunning = engine === RUNNING;
  const failsAt = run.lose === undefined ? -1 : run.lose.minute;
  if (failsAt >= from && failsAt < from + QUARTER) return false;
  if (state.sunOf !== state.season) {
    state.sunOf = state.season;
    state.sunQuarters = sunQuarters(plant, state.season);
  }
  if (state.isStopped || (state.isDown && !isRunning)) return playDark(plant, state);
  // A curve of the efficiency is not in proportion to anything.
  if (plant.efficiency.length !== 1) return false;
  const { generator } = plant;
  if (state.quartersOf !== state.strain) {
    state.quartersOf = state.strain;
    state.loadQuarters = loadQuarters(state.strain);
  }
  const load = state.loadQuarters;
  const sun = state.sunQuarters;
  const l = at * LOAD_STRIDE;
  const s = at * SUN_STRIDE;
  if ((load[l + (isRunning ? ENGINE_STRAIN_MOST : STRAIN_MOST)] ?? 0) * factor > 1 + ROUNDING) return false;

  const { flat, perFlat } = state;
  const loadSum = (load[l + LOAD_SUM] ?? 0) * factor;
  let restSum = loadSum;
  let restLeast = (load[l + LOAD_LEAST] ?? 0) * factor;
  let restMost = (load[l + LOAD_MOST] ?? 0) * factor;
  let intoSum = 0;
  let intoLeast = 0;
  let intoMost = 0;
  let lossSum = 0;
  let generatorSum = 0;
  if (isRunning && generator !== undefined) {
    const isSteady = restLeast === restMost && load[l + REST_LEAST] === load[l + REST_MOST];
    restSum = (load[l + REST_SUM] ?? 0) * factor;
    restLeast = (load[l + REST_LEAST] ?? 0) * factor;
    restMost = (load[l + REST_MOST] ?? 0) * factor;
    // Lines that the engine does not reach are dark while the bank is empty.
    if (state.isDown && restMost > 0) return false;
    const reachedMost = (load[l + REACHED_MOST] ?? 0) * factor;
    const spareW = positive(generator.targetW - reachedMost);
    // The engine gives all its charging power throughout, or its loads are the same in each minute.
    if (spareW < generator.chargeW && !isSteady) return false;
    const dcW = least(least(generator.chargeW, spareW) * flat, mostChargeW);
    const acW = dcW * perFlat;
    generatorSum = loadSum - restSum + acW * QUARTER;
    const burntMost = (generator.idleLPerH + (generator.lPerKwh * (reachedMost + acW)) / 1000) * PER_HOUR;
    if (state.litres + burntMost >= generator.fuelL) return false;
    lossSum = (acW - dcW) * QUARTER;
    intoSum = dcW * QUARTER;
    intoLeast = dcW;
    intoMost = dcW;
  }

  const { sky } = state;
  const acMost = (sun[s + AC_MOST] ?? 0) * sky;
  const acAll = (sun[s + AC_SUM] ?? 0) * sky;
  let sunAcSum = 0;
  if (acMost > 0 && (!isRunning || plant.acStaysWithGenerator)) {
    const acLeast = (sun[s + AC_LEAST] ?? 0) * sky;
    sunAcSum = acAll;
    if (acMost <= restLeast) {
      // All of it goes into the loads.
      restSum -= acAll;
      const restAtLeast = restLeast - acMost;
      restMost -= acLeast;
      restLeast = restAtLeast;
    } else if (acLeast >= restMost) {
      // It carries the loads, and charges with the rest.
      const surplusSum = acAll - restSum;
      lossSum += surplusSum * (1 - flat);
      intoSum += surplusSum * flat;
      intoLeast += (acLeast - restMost) * flat;
      intoMost += (acMost - restLeast) * flat;
      restSum = 0;
      restLeast = 0;
      restMost = 0;
    } else return false;
  }

  const dcLeast = (sun[s + DC_LEAST] ?? 0) * sky;
  const dcMost = (sun[s + DC_MOST] ?? 0) * sky;
  const dcAll = (sun[s + DC_SUM] ?? 0) * sky;
  const outSum = restSum * perFlat;
  const needSum = outSum + restingW * QUARTER;
  const needLeast = restLeast * perFlat + restingW;
  const needMost = restMost * perFlat + restingW;
  lossSum += outSum - restSum;
  let sunDcSum = dcAll;
  let chargeMost = positive(dcMost - needLeast) + intoMost;
  if (fullWh - heldWh <= NOTHING_WH && intoMost === 0 && dcLeast >= needMost) {
    // A full bank takes nothing: the sun gives what is needed.
    sunDcSum = needSum;
    chargeMost = 0;
  } else if (chargeMost > mostChargeW || heldWh + chargeMost * PER_HOUR > fullWh) return false;
  const drawMost = positive(needMost - dcLeast - intoLeast);
  if (needMost - dcLeast > state.mostDischargeW) return false;
  const lowWh = heldWh - drawMost * PER_HOUR;
  if (lowWh < (isRunning && restMost === 0 ? 0 : fullWh * plant.floorSoc)) return false;
  const lowSoc = least(state.soc, lowWh * perFull);
  const highSoc = most(state.soc, (heldWh + chargeMost * PER_HOUR) * perFull);
  if (generator !== undefined) {
    if (engine === OFF && state.litres < generator.fuelL && lowSoc <= run.generatorFromSoc) return false;
    if (isRunning && highSoc >= run.generatorToSoc) return false;
  }
  if (state.isDown && highSoc >= plant.floorSoc + HYSTERESIS - ROUNDING) return false;
  if (!staysOn(state, lowSoc, highSoc)) return false;
  const isFalling = needLeast >= dcMost + intoMost;
  // The lowest level in between is not that of an end.
  if (lowSoc < state.lowestSoc && !isFalling && drawMost > 0) return false;

  const batterySum = needSum - sunDcSum - intoSum;
  state.sumServed += loadSum;
  if (state.asked !== state.strain) state.sumUnserved += askedOver(state) * factor - loadSum;
  state.sumSunDc += sunDcSum;
  state.sumSunAc += sunAcSum;
  state.sumCurtailed += dcAll + acAll - sunDcSum - sunAcSum;
  state.sumGenerator += generatorSum;
  state.sumLosses += lossSum;
  state.sumIdle += restingW * QUARTER;
  state.sumBattery += batterySum;
  state.servedSince += QUARTER;
  state.heldWh = heldWh - batterySum * PER_MINUTE;
  state.soc = state.heldWh * perFull;
  state.lowestSoc = least(state.lowestSoc, state.soc);
  state.at = at + QUARTER;
  if (isRunning && generator !== undefined) {
    state.engineMinutes += QUARTER;
    state.litres += generator.idleLPerH * PER_HOUR + (generator.lPerKwh * generatorSum * PER_MINUTE) / 1000;
  }
  return true;
}

/** What everything that should be on asks for in these minutes, W by minute, added up. */
function askedOver(state: OutageState): number {
  if (state.askedQuartersOf !== state.asked) {
    state.askedQuartersOf = state.asked;
    state.askedQuarters = loadQuarters(state.asked);
  }
  return state.askedQuarters[state.at * LOAD_STRIDE + LOAD_SUM] ?? 0;
}
