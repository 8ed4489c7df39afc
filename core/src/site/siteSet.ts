import { hypot } from '../values/elementary.ts';
import { allowedTimeS } from '../network/overload.ts';
import { efficiencyAt } from '../figures/capability/efficiency.ts';
import { partsThrough } from '../figures/capability/acShare.ts';
import { HYSTERESIS } from '../rehearse/playMinutes.ts';
import { meanSoc, stepBank } from './siteBank.ts';
import type { Heard } from './siteBus.ts';
import type { SiteFault } from './siteFaults.ts';
import { outputOhmOf } from './siteParts.ts';
import type { SitePlan, SiteSet, SiteUnit } from './siteTypes.ts';
import { type SetPhase, type SetState, type SiteState, tell } from './siteState.ts';

/** How long units take to wake, s. */
const WAKE_S = 10;
/** An overload that is over is forgotten in so many seconds. */
const COOL_S = 60;
/** A surplus of AC-coupled sun raises the frequency by up to so much, Hz. */
const SHIFT_HZ = 1;
const FULL_SOC = 0.995;

/** What stands at the input of a set in this step. */
export interface SetInput {
  readonly source: 'grid' | 'generator' | undefined;
  readonly heard: Heard;
  readonly faults: readonly SiteFault[];
  /** W and var on each line that its boards want. */
  readonly wanted: readonly { readonly re: number; readonly im: number }[];
  /** Frequency of what it is joined to, Hz. */
  readonly sourceHz: number;
  /** AC power that may go into the battery from what it is joined to, W. */
  readonly mostChargeW: number;
  readonly dtS: number;
}

function enter(
  state: SiteState,
  set: SiteSet,
  now: SetState,
  phase: SetPhase,
  sentence: string,
  reason = '',
): void {
  now.phase = phase;
  now.sinceS = 0;
  now.reason = reason;
  now.watchedS = 0;
  tell(state, `${set.name}: ${sentence}`);
}

/** Why the units of a set do not work together; undefined where they do. */
export function mismatchOf(set: SiteSet, now: SetState, heard: Heard): string | undefined {
  const on = now.units.filter((unit, index) => unit.isOn && heard.units.has(set.units[index]?.unit.id ?? ''));
  if (set.units.length > 1) {
    if (new Set(on.map(({ address }) => address)).size < on.length) return 'two units have one address';
    if (new Set(on.map(({ firmware }) => firmware)).size > 1) return 'the firmware of its units differs';
    if (now.settings.count !== set.units.length)
      return `it is set for ${now.settings.count} of ${set.units.length} units`;
  }
  return undefined;
}

/** Units that can work: on, alive, heard, with something to run from. */
export function readyUnits(
  set: SiteSet,
  now: SetState,
  { heard, source }: Pick<SetInput, 'heard' | 'source'>,
): boolean[] {
  const hasSupply = source !== undefined || (now.isBatteryClosed && set.bank !== 'none');
  return set.units.map(
    ({ unit }, index) => (now.units[index]?.isOn ?? false) && hasSupply && heard.units.has(unit.id),
  );
}

/** Whether what is there is enough to go on without a source, or why not. */
function islandProblem(set: SiteSet, now: SetState, ready: readonly boolean[]): string | undefined {
  if (set.type.backupOutlet === 'none') return 'its type feeds nothing in island';
  if (!now.settings.backup) return 'its backup output is switched off in the settings';
  if (set.bank === 'none' || !now.isBatteryClosed) return 'it has no battery';
  if (set.type.lostUnit === 'set-stops' && ready.includes(false))
    return 'a unit of it is missing, and its type stops then';
  if (meanSoc(now) <= now.settings.floorSoc) return 'its battery is empty';
  return undefined;
}

function leaveSource(state: SiteState, set: SiteSet, now: SetState, ready: readonly boolean[]): void {
  const problem = islandProblem(set, now, ready);
  if (problem !== undefined) {
    enter(state, set, now, 'dark', `no island: ${problem}.`, problem);
    return;
  }
  now.lastTransferMs = set.transferMs * (0.85 + 0.1 * ((state.seed % 7) / 7));
  for (const line of state.lines) line.lowestV = set.compiled.site.lineVoltageV ?? line.lowestV;
  enter(state, set, now, 'island', 'in island.');
}

/** Moves a set from phase to phase by what is there. */
export function movePhase(state: SiteState, set: SiteSet, now: SetState, input: SetInput): void {
  const ready = readyUnits(set, now, input);
  now.sinceS += input.dtS;
  if (!ready.includes(true)) {
    // What tripped says so until somebody switches it on again.
    if (now.phase !== 'off' && now.phase !== 'tripped') enter(state, set, now, 'off', 'off.');
    return;
  }
  const mismatch = mismatchOf(set, now, input.heard);
  if (mismatch !== undefined) {
    if (now.phase !== 'tripped') enter(state, set, now, 'tripped', `stopped: ${mismatch}.`, mismatch);
    return;
  }
  switch (now.phase) {
    case 'off':
      enter(state, set, now, 'starting', 'its units wake.');
      break;
    case 'starting':
      if (now.sinceS < WAKE_S) break;
      if (input.source !== undefined) enter(state, set, now, 'waiting', 'watches the source.');
      else leaveSource(state, set, now, ready);
      break;
    case 'waiting':
      if (input.source === undefined) leaveSource(state, set, now, ready);
      else if (now.sinceS >= set.reconnectS) join(state, set, now, input.source);
      break;
    case 'joined':
      if (input.source === undefined) leaveSource(state, set, now, ready);
      else now.source = input.source;
      break;
    case 'island':
      stayInIsland(state, set, now, input, ready);
      break;
    case 'dark':
    case 'empty':
      if (input.source !== undefined) enter(state, set, now, 'waiting', 'watches the source.');
      else if (
        islandProblem(set, now, ready) === undefined &&
        meanSoc(now) >= now.settings.floorSoc + HYSTERESIS
      )
        leaveSource(state, set, now, ready);
      break;
    case 'tripped':
      enter(state, set, now, 'starting', 'its units wake.');
      break;
  }
}

const OVERLOAD = 'it was overloaded';
const BATTERY = 'its battery could not give what was asked';

function join(state: SiteState, set: SiteSet, now: SetState, source: 'grid' | 'generator'): void {
  const came = now.watchedS > 0 ? now.watchedS : now.sinceS;
  now.source = source;
  enter(state, set, now, 'joined', `joined to the ${source}.`);
  now.lastReturnS = came;
}

function stayInIsland(
  state: SiteState,
  set: SiteSet,
  now: SetState,
  { source, dtS }: SetInput,
  ready: readonly boolean[],
): void {
  now.lastIslandS = now.sinceS;
  const problem = islandProblem(set, now, ready);
  if (problem !== undefined && meanSoc(now) <= now.settings.floorSoc) {
    enter(state, set, now, 'empty', 'its battery is empty.', problem);
    return;
  }
  if (problem !== undefined) {
    enter(state, set, now, 'dark', `dark: ${problem}.`, problem);
    return;
  }
  now.watchedS = source === undefined ? 0 : now.watchedS + dtS;
  if (source !== undefined && now.watchedS >= set.reconnectS) join(state, set, now, source);
}

/** Share of a line that each of its units carries, as the checks share it; none for those that are not ready. */
function lineParts(set: SiteSet, ready: readonly boolean[], line: number): number[] {
  const there = set.units.flatMap(({ lines }, index) =>
    lines.includes(line) && ready[index] === true ? [index] : [],
  );
  const parts = partsThrough(
    there.map((index) => set.units[index]?.acLeadOhm ?? 0),
    outputOhmOf(set.type),
  );
  return set.units.map((_, index) => parts[there.indexOf(index)] ?? 0);
}

/** What a line of a set gives with the units that are ready, VA. */
function lineRatedVa(set: SiteSet, ready: readonly boolean[], line: number): number {
  const all = set.units.filter(({ lines }) => lines.includes(line)).length;
  const there = set.units.filter(({ lines }, index) => lines.includes(line) && ready[index] === true).length;
  return all === 0 ? 0 : ((set.capability.perLineVa[line] ?? 0) * there) / all;
}

/** The voltage of each line of a set in island, and the overload it uses up: V = V_n · min(1, S_most / S), less what the output gives way. */
function islandVoltages(
  state: SiteState,
  plan: SitePlan,
  set: SiteSet,
  now: SetState,
  ready: readonly boolean[],
  { wanted, dtS }: SetInput,
): void {
  const most = set.type.overloadCurve.at(-1)?.multiple ?? 1;
  let used = 0;
  plan.supply.lines.forEach((_, line) => {
    const one = state.lines[line];
    const load = wanted[line];
    const ratedVa = lineRatedVa(set, ready, line);
    if (one === undefined || load === undefined || !set.units.some(({ lines }) => lines.includes(line)))
      return;
    const va = hypot(load.re, load.im);
    const limit = va > 0 ? Math.min(1, (ratedVa * most) / va) : 1;
    const fed = set.units.filter(({ lines }, index) => lines.includes(line) && ready[index] === true).length;
    const droopV = fed > 0 ? ((va / plan.lineVoltageV) * outputOhmOf(set.type)) / fed : 0;
    one.voltageV = fed === 0 ? 0 : Math.max(0, plan.lineVoltageV * limit - droopV);
    if (ratedVa <= 0 || va <= ratedVa) return;
    const allowedS = allowedTimeS(set.type.overloadCurve, va / ratedVa);
    used = Math.max(used, allowedS === 0 ? 1 : dtS / allowedS);
  });
  now.overload = used > 0 ? now.overload + used : Math.max(0, now.overload - dtS / COOL_S);
  if (now.overload < 1) return;
  now.overload = 0;
  for (const unit of now.units) unit.isOn = false;
  enter(state, set, now, 'tripped', 'tripped by overload. Its units are off.', OVERLOAD);
}

interface UnitPower {
  readonly acW: number;
  readonly sunW: number;
}

/** What each unit gives on the AC side, W, with the current at its output. */
function unitOutputs(
  plan: SitePlan,
  set: SiteSet,
  now: SetState,
  ready: readonly boolean[],
  { wanted }: SetInput,
  lineV: readonly number[],
): number[] {
  const parts = plan.supply.lines.map((_, line) => lineParts(set, ready, line));
  return set.units.map((_, index) => {
    let watts = 0;
    let most = 0;
    wanted.forEach((load, line) => {
      const part = parts[line]?.[index] ?? 0;
      watts += load.re * part;
      const volts = lineV[line] ?? 0;
      if (volts > 0) most = Math.max(most, (hypot(load.re, load.im) * part) / volts);
    });
    const unit = now.units[index];
    if (unit !== undefined) {
      unit.watts = watts;
      unit.currentA = most;
    }
    return watts;
  });
}

const sunOfUnit = (state: SiteState, { sunW, unit }: SiteUnit, set: SiteSet, isReady: boolean): number => {
  const swapped = state.faults.some(
    ({ kind, at }) => kind === 'polarity-swapped' && isArrayOn(set, unit.id, at),
  );
  return isReady && !swapped ? sunW * state.sun : 0;
};

const isArrayOn = (set: SiteSet, unitId: string, arrayId: string): boolean =>
  set.arrays.some((array) => array.id === arrayId && array.unitIds.includes(unitId));

/** DC power of each unit at its battery port: what it gives and idles, less its sun; charge where it is joined or the sun is left over. */
function batteryPowers(
  set: SiteSet,
  now: SetState,
  ready: readonly boolean[],
  powers: readonly UnitPower[],
  chargeW: number,
): number[] {
  const count = Math.max(1, ready.filter(Boolean).length);
  return set.units.map((_, index) => {
    const power = powers[index];
    if (power === undefined || ready[index] !== true) return 0;
    const outW = now.phase === 'island' && power.acW !== 0 ? acToDc(set, power.acW) : 0;
    const intoW = (chargeW / count) * efficiencyAt(set.type, chargeW / count);
    return outW + set.type.idleW - power.sunW - intoW;
  });
}

const acToDc = (set: SiteSet, watts: number): number =>
  watts >= 0 ? watts / efficiencyAt(set.type, watts) : watts * efficiencyAt(set.type, -watts);

/** What may still go into the battery, DC, W: its own limit, the setting of the units, and nothing once it is full. */
function roomW(set: SiteSet, now: SetState): number {
  if (set.bank === 'none' || !now.isBatteryClosed || meanSoc(now) >= FULL_SOC) return 0;
  const units = set.isOwnBank ? 1 : set.units.length;
  return (
    Math.min(set.bank.chargeA, units * now.settings.chargeA) * Math.max(1, now.batteryV || set.bank.nominalV)
  );
}

/** One step of what a set gives and takes, after its phase is known. */
export function stepSet(
  plan: SitePlan,
  state: SiteState,
  set: SiteSet,
  now: SetState,
  input: SetInput,
): void {
  const { dtS } = input;
  const ready = readyUnits(set, now, input);
  if (now.phase === 'island') islandVoltages(state, plan, set, now, ready, input);
  const lineV = state.lines.map(({ voltageV }) => voltageV);
  const isLive = now.phase === 'island' || now.phase === 'joined';
  const wanted = isLive ? input.wanted : input.wanted.map(() => ({ re: 0, im: 0 }));
  const outputs = unitOutputs(plan, set, now, ready, { ...input, wanted }, lineV);
  const powers = set.units.map((unit, index): UnitPower => ({
    acW: outputs[index] ?? 0,
    sunW: sunOfUnit(state, unit, set, ready[index] === true && now.phase !== 'tripped'),
  }));
  now.loadW = wanted.reduce((sum, { re }) => sum + re, 0);
  const mostW = roomW(set, now);
  const sunW = powers.reduce((sum, one) => sum + one.sunW, 0);
  const offeredW = input.mostChargeW / set.units.length;
  const arrivesW = Math.max(0, mostW - sunW) / efficiencyAt(set.type, offeredW);
  now.chargeW = now.phase === 'joined' ? Math.max(0, Math.min(input.mostChargeW, arrivesW)) : 0;
  let powersW = batteryPowers(set, now, ready, powers, now.chargeW);
  const intoW = -powersW.reduce((sum, one) => sum + one, 0);
  // More sun than goes anywhere is held back at the inputs.
  if (intoW > mostW) powersW = powersW.map((one) => (one < 0 ? (one * mostW) / intoW : one));
  now.sunW = Math.max(0, sunW - Math.max(0, intoW - mostW));
  const surplusW = -Math.min(0, now.loadW);
  const isShifting =
    now.phase === 'island' && set.type.shiftsFrequency === 'yes' && surplusW > 0 && intoW > mostW;
  now.frequencyHz = now.phase === 'joined' ? input.sourceHz : plan.frequencyHz + (isShifting ? SHIFT_HZ : 0);
  if (set.isOwnBank) powersW = hardestOnly(powersW);
  const { isTooMuch } = stepBank(set, now, powersW, input.faults, dtS);
  guardBattery(state, set, now, isTooMuch);
}

/** Where each unit has a bank of its own they are alike, and the one that is drawn from most is played. */
function hardestOnly(powersW: readonly number[]): number[] {
  const most = powersW.reduce((best, one, index) => (one > (powersW[best] ?? 0) ? index : best), 0);
  return powersW.map((one, index) => (index === most ? one : 0));
}

/** What stops a set for its battery, and a module for itself. */
function guardBattery(state: SiteState, set: SiteSet, now: SetState, isTooMuch: boolean): void {
  if (set.bank === 'none') return;
  const { type } = set.bank;
  now.modules.forEach((module, index) => {
    if (!module.isJoined || module.overS <= type.peakS) return;
    module.isJoined = false;
    module.overS = 0;
    tell(
      state,
      `${set.modules[index]?.label ?? 'A module'} took itself off the bank: more current than it may give.`,
    );
  });
  if (now.phase !== 'island') return;
  const low = now.batteryV < set.type.lowVoltageTripV && now.batteryA > 0;
  if (!isTooMuch && !low) return;
  for (const unit of now.units) unit.isOn = false;
  enter(
    state,
    set,
    now,
    'tripped',
    'tripped: its battery could not give what was asked. Its units are off.',
    BATTERY,
  );
}
