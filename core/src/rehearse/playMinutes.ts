import type { Watch } from './minute.ts';
import type { OutageRun } from './outageRun.ts';
import { NO_SUN, NOBODY, type OutageState } from './outageState.ts';
import type { Plant } from './plant.ts';
import { fedShares, strainBy } from './strain.ts';
import { MINUTES_OF_DAY, SEASONS } from './year.ts';

/** A stage comes back, and a set that was empty starts again, so far above the level at which it went. */
export const HYSTERESIS = 0.05;
const DAYS_OF_SEASON = 5;
const HOUR = 60;
const PER_MINUTE = 1 / 60;
/** Less than this is rounding, Wh. */
export const NOTHING_WH = 1e-9;
/** And this of a state of charge. */
export const ROUNDING = 1e-12;
// Of this module, not of that of the state: what comes from another one is looked up each time.
/** A generator that stands, one that is called for, and one that runs. */
export const OFF = 0;
export const COMING = 1;
export const RUNNING = 2;
/** No minute of any outage. */
const NEVER = -1;

/** Efficiency of a unit at what it gives: straight between its points, flat outside. */
function efficiencyAt(each: number, pointsW: Float64Array, efficiency: Float64Array): number {
  const last = pointsW.length - 1;
  if (last === 0 || each <= (pointsW[0] ?? 0)) return efficiency[0] ?? 1;
  for (let at = 1; at <= last; at += 1) {
    const high = pointsW[at] ?? 0;
    if (each > high) continue;
    const low = pointsW[at - 1] ?? 0;
    const from = efficiency[at - 1] ?? 1;
    return from + (((efficiency[at] ?? 1) - from) * (each - low)) / (high - low);
  }
  return efficiency[last] ?? 1;
}

const positive = (value: number): number => (value > 0 ? value : 0);
const least = (a: number, b: number): number => (a < b ? a : b);
/**
 * Plays some minutes of an outage: what is on by the level of the bank, what sun and generator give, the rest from the bank within its
 * limits. A bank that runs dry in the middle of a minute serves that part of it. Nothing is allocated from minute to minute.
 *
 * It is one long function on purpose: forty-three million minutes are played for ten thousand outages of three days, and only what is
 * local to one function stays in the registers of the machine. It plays no more than some minutes at a time, so that it is called often:
 * a machine that compiles as it goes optimises what is entered often for good, and one long loop only in passing.
 */
export function playMinutes(
  plant: Plant,
  run: OutageRun,
  state: OutageState,
  from: number,
  to: number,
  watch: Watch | undefined,
): void {
  const { floorSoc, generator, sharedBy, efficiencyW, efficiency, acStaysWithGenerator } = plant;
  const { clearness, lose, generatorFromSoc, generatorToSoc } = run;
  const { everything, withoutEngine, stageSoc, stageBit } = state.bits;
  const stageCount = stageSoc.length;
  // Of most types one figure is known: it needs no looking up.
  const isFlat = efficiencyW.length === 1;
  const { flat, perFlat, isLed } = state;
  const lastDay = clearness.length - 1;
  const failsAt = lose?.minute ?? NEVER;
  const hasEngine = generator !== undefined;
  const engineTargetW = generator?.targetW ?? 0;
  const engineChargeW = generator?.chargeW ?? 0;
  const engineIdleL = generator?.idleLPerH ?? 0;
  const engineLPerKwh = generator?.lPerKwh ?? 0;
  const fuelL = generator?.fuelL ?? 0;
  const comesAfter =
    generator === undefined
      ? 0
      : generator.warmUpMin + (generator.start === 'two-wire' ? 0 : run.handMinutes);

  /* eslint-disable @typescript-eslint/no-unnecessary-type-conversion -- it makes registers of them */
  // Signs and zeros say to the machine what each is: a number with a point, or a whole one. Without them a minute takes half as long again.
  let fullWh = +state.fullWh;
  let restingW = +state.restingW;
  let mostDischargeW = +state.mostDischargeW;
  let mostChargeW = +state.mostChargeW;
  let heldWh = +state.heldWh;
  let perFull = +state.perFull;
  let soc = +state.soc;
  let isDown = state.isDown;
  let isStopped = state.isStopped;
  let engine = state.engine | 0;
  let engineWait = state.engineWait | 0;
  const factor = +state.factor;
  let at = state.at | 0;
  let day = state.day | 0;
  let season = state.season | 0;
  let dropped = state.dropped | 0;
  let gone = state.gone;
  let fedShare = state.fedShare;
  let live = state.live | 0;
  let servedSince = +state.servedSince;
  let strain = state.strain;
  let wanted = state.wanted | 0;
  let asked = state.asked;
  let dcDay = state.dcDay;
  let acDay = state.acDay;
  let sky = +state.sky;
  let engineMinutes = state.engineMinutes | 0;
  let engineStarts = state.engineStarts | 0;
  let litres = +state.litres;
  let overloads = state.overloads | 0;
  let lowestSoc = +state.lowestSoc;
  let lasted = +state.lasted;
  let sumServed = +state.sumServed;
  let sumUnserved = +state.sumUnserved;
  let sumSunDc = +state.sumSunDc;
  let sumSunAc = +state.sumSunAc;
  let sumCurtailed = +state.sumCurtailed;
  let sumGenerator = +state.sumGenerator;
  let sumLosses = +state.sumLosses;
  let sumIdle = +state.sumIdle;
  let sumBattery = +state.sumBattery;
  /* eslint-enable @typescript-eslint/no-unnecessary-type-conversion */
  let mostStrain = strain.most;
  let fedW = strain.loadW;
  let askedW = asked.loadW;

  for (let minute = from; minute < to; minute += 1) {
    if (minute === failsAt && lose !== undefined) {
      if (lose.what === 'module') {
        const left = (plant.moduleCount - 1) / plant.moduleCount;
        // What was in it is lost to this outage.
        sumBattery += heldWh * (1 - left) * HOUR;
        sumLosses += heldWh * (1 - left) * HOUR;
        fullWh *= left;
        heldWh *= left;
        mostDischargeW *= left;
        mostChargeW *= left;
        perFull = fullWh > 0 ? 1 / fullWh : 0;
        soc = heldWh * perFull;
      } else if (plant.lostUnit === 'set-stops' || plant.unitCount === 1) isStopped = true;
      else {
        state.serve(live, servedSince, fedShare);
        servedSince = 0;
        gone = { unitId: lose.unitId };
        fedShare = fedShares(plant, gone);
        live = NOBODY;
        restingW *= (plant.unitCount - 1) / plant.unitCount;
      }
    }
    if (isDown && soc >= floorSoc + HYSTERESIS - ROUNDING) isDown = false;

    // The engine: called for by the level, there after a while, gone when the bank is full enough or the fuel is not.
    let isRunning = false;
    if (hasEngine) {
      const hasFuel = litres < fuelL;
      if (isLed) engineWait = 0;
      else if (engine === OFF && hasFuel && (isDown || soc <= generatorFromSoc)) {
        engine = COMING;
        engineWait = comesAfter;
      } else if (engine === COMING) engineWait -= 1;
      if (engine === COMING && engineWait <= 0) {
        engine = RUNNING;
        engineStarts += 1;
      }
      if (!isLed && engine === RUNNING && (soc >= generatorToSoc || !hasFuel)) engine = OFF;
      isRunning = engine === RUNNING && !isStopped;
    }

    // What is on by the level of the bank, and what it takes.
    for (let stage = 0; stage < stageCount; stage += 1) {
      const level = stageSoc[stage] ?? 0;
      if (soc <= level) dropped |= stageBit[stage] ?? 0;
      else if (soc >= level + HYSTERESIS - ROUNDING) dropped &= ~(stageBit[stage] ?? 0);
    }
    const nowWanted = isRunning ? everything : withoutEngine;
    const nowLive = isRunning ? everything : withoutEngine & ~dropped;
    if (nowLive !== live || nowWanted !== wanted) {
      state.serve(live, servedSince, fedShare);
      servedSince = 0;
      live = nowLive;
      wanted = nowWanted;
      strain = strainBy(plant, season, live, gone);
      mostStrain = strain.most;
      fedW = strain.loadW;
      asked = strainBy(plant, season, wanted, undefined);
      askedW = asked.loadW;
    }
    const wantedW = (askedW[at] ?? 0) * factor;
    const loadW = (fedW[at] ?? 0) * factor;

    const clearDcW = (dcDay[at] ?? 0) * sky;
    const clearAcW = (acDay[at] ?? 0) * sky;
    let served = 1;
    let sunDcW = 0;
    let sunAcW = 0;
    let generatorW = 0;
    let lossW = 0;
    let idleW = 0;
    let batteryW = 0;
    let isOpen = false;
    if (isStopped || (isDown && !isRunning)) {
      // A dark set: sun on its DC side still covers what idles, and charges.
      served = 0;
      if (!isStopped && clearDcW > restingW) {
        const intoW = least(clearDcW - restingW, least(mostChargeW, (fullWh - heldWh) * HOUR));
        sunDcW = intoW + restingW;
        idleW = restingW;
        batteryW = -intoW;
      }
    } else if ((isRunning ? (strain.withEngine[at] ?? 0) : (mostStrain[at] ?? 0)) * factor > 1 + ROUNDING)
      isOpen = true;
    else {
      // A live set: the generator or the inverters carry the load, sun goes first, the bank gives or takes the rest.
      let leftToChargeW = least(mostChargeW, positive((fullWh - heldWh) * HOUR));
      let intoW = 0;
      let restW = loadW;
      if (isRunning) {
        // On lines that it does not reach the inverters go on.
        const reachedW = (strain.engineW[at] ?? 0) * factor;
        const offeredW = least(engineChargeW, positive(engineTargetW - reachedW));
        const through = isFlat ? flat : efficiencyAt(offeredW / sharedBy, efficiencyW, efficiency);
        const dcW = least(offeredW * through, leftToChargeW);
        generatorW = reachedW + dcW / through;
        lossW += dcW / through - dcW;
        intoW += dcW;
        leftToChargeW -= dcW;
        restW = loadW - reachedW;
      }
      if (clearAcW > 0 && (!isRunning || acStaysWithGenerator)) {
        const toLoadW = least(clearAcW, restW);
        restW -= toLoadW;
        const surplusW = clearAcW - toLoadW;
        const through = isFlat ? flat : efficiencyAt(surplusW / sharedBy, efficiencyW, efficiency);
        const dcW = least(surplusW * through, leftToChargeW);
        sunAcW = toLoadW + dcW / through;
        lossW += dcW / through - dcW;
        intoW += dcW;
        leftToChargeW -= dcW;
      }
      const outW = isFlat
        ? restW * perFlat
        : restW === 0
          ? 0
          : restW / efficiencyAt(restW / sharedBy, efficiencyW, efficiency);
      lossW += outW - restW;
      idleW = restingW;
      let needW = outW + restingW;
      let directW = least(clearDcW, needW);
      let spareW = least(clearDcW - directW, leftToChargeW);
      batteryW = needW - directW - spareW - intoW;
      if (isRunning && restW > 0 && (isDown || batteryW * PER_MINUTE > heldWh - fullWh * floorSoc)) {
        // Lines that the engine does not reach are dark while the bank is empty.
        served = (loadW - restW) / loadW;
        lossW -= outW - restW;
        needW = restingW;
        directW = least(clearDcW, needW);
        spareW = least(clearDcW - directW, leftToChargeW);
        batteryW = needW - directW - spareW - intoW;
      }
      sunDcW = directW + spareW;
      if (batteryW > mostDischargeW) isOpen = true;
      else if (isRunning) {
        const mostW = positive(heldWh * HOUR);
        if (batteryW > mostW) {
          // An empty bank feeds nothing, not even what idles.
          idleW -= batteryW - mostW;
          batteryW = mostW;
        }
      } else {
        const leftWh = heldWh - fullWh * floorSoc;
        if (batteryW * PER_MINUTE > leftWh + NOTHING_WH) {
          // Dry in the middle of this minute: served so far, and no further.
          const part = positive(leftWh * HOUR) / batteryW;
          served = part;
          sunDcW *= part;
          sunAcW *= part;
          batteryW *= part;
          lossW *= part;
          idleW *= part;
          isDown = true;
        }
      }
    }
    if (isOpen) {
      // Nothing is served for this minute; what idles is covered by sun and bank.
      overloads += 1;
      served = 0;
      sunAcW = 0;
      generatorW = 0;
      lossW = 0;
      idleW = restingW;
      sunDcW = least(clearDcW, restingW);
      batteryW = restingW - sunDcW;
      const mostW = positive(heldWh * HOUR);
      if (batteryW > mostW) {
        idleW -= batteryW - mostW;
        batteryW = mostW;
      }
    }
    if (isRunning) {
      engineMinutes += 1;
      litres += (engineIdleL + (engineLPerKwh * generatorW) / 1000) / HOUR;
    }
    heldWh -= batteryW * PER_MINUTE;

    sumServed += loadW * served;
    sumUnserved += wantedW - loadW * served;
    sumSunDc += sunDcW;
    sumSunAc += sunAcW;
    sumCurtailed += clearDcW + clearAcW - sunDcW - sunAcW;
    sumGenerator += generatorW;
    sumLosses += lossW;
    sumIdle += idleW;
    sumBattery += batteryW;
    servedSince += served;
    if (served < 1 && lasted < 0) lasted = minute + served;
    soc = heldWh * perFull;
    if (soc < lowestSoc) lowestSoc = soc;
    watch?.(minute, {
      soc,
      wantedW,
      loadW,
      served,
      sunDcW,
      sunAcW,
      curtailedW: clearDcW + clearAcW - sunDcW - sunAcW,
      generatorW,
      batteryW,
      lossW,
      idleW,
      boards: live,
      isRunning,
      isFuelSpent: generator !== undefined && litres >= fuelL,
      isStopped,
      strain,
      at,
      factor,
    });

    at += 1;
    if (at === MINUTES_OF_DAY) {
      at = 0;
      day += 1;
      sky = clearness[least(day, lastDay)] ?? 0;
      const now = (run.season + Math.floor(day / DAYS_OF_SEASON)) % SEASONS;
      if (now !== season) {
        season = now;
        state.serve(live, servedSince, fedShare);
        servedSince = 0;
        live = NOBODY;
        dcDay = plant.sunDcW[season] ?? NO_SUN;
        acDay = plant.sunAcW[season] ?? NO_SUN;
      }
    }
  }
  state.fullWh = fullWh;
  state.restingW = restingW;
  state.mostDischargeW = mostDischargeW;
  state.mostChargeW = mostChargeW;
  state.heldWh = heldWh;
  state.perFull = perFull;
  state.soc = soc;
  state.isDown = isDown;
  state.isStopped = isStopped;
  state.engine = engine;
  state.engineWait = engineWait;
  state.at = at;
  state.day = day;
  state.season = season;
  state.dropped = dropped;
  state.gone = gone;
  state.fedShare = fedShare;
  state.live = live;
  state.servedSince = servedSince;
  state.strain = strain;
  state.wanted = wanted;
  state.asked = asked;
  state.dcDay = dcDay;
  state.acDay = acDay;
  state.sky = sky;
  state.engineMinutes = engineMinutes;
  state.engineStarts = engineStarts;
  state.litres = litres;
  state.overloads = overloads;
  state.lowestSoc = lowestSoc;
  state.lasted = lasted;
  state.sumServed = sumServed;
  state.sumUnserved = sumUnserved;
  state.sumSunDc = sumSunDc;
  state.sumSunAc = sumSunAc;
  state.sumCurtailed = sumCurtailed;
  state.sumGenerator = sumGenerator;
  state.sumLosses = sumLosses;
  state.sumIdle = sumIdle;
  state.sumBattery = sumBattery;
}
