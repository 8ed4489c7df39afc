import { hypot, sin } from '../values/elementary.ts';
import type { ModeKind } from '../installation/modeKinds.ts';
import type { ModeFacts } from '../modes/walk.ts';
import { HYSTERESIS } from '../rehearse/playMinutes.ts';
import { callLevels } from '../figures/generator/callLevels.ts';
import { meanSoc } from './siteBank.ts';
import { heardIn, pulledLinks } from './siteBus.ts';
import { addCircuit } from './siteLoads.ts';
import type { SiteBoard, SiteGenerator, SitePlan, SiteSet } from './siteTypes.ts';
import { movePhase, type SetInput, stepSet } from './siteSet.ts';
import type { GeneratorState, SetState, SiteState } from './siteState.ts';
import { tell } from './siteState.ts';

/** The step of the simulation, s: short enough for the start of a motor, long against the electronics of a transfer. */
export const STEP_S = 0.1;
/** A break that is longer makes what was running start again, ms: contactors let go. */
const LETS_GO_MS = 50;
const HOUR_S = 3600;
/** An engine carries so much over its rating for a short while, and stalls above. */
const STALLS_ABOVE = 1.1;
/** The voltage of the grid swells and ebbs by this share, with this time, s. */
const GRID_SWELL = 0.004;
const GRID_SWELL_S = 97;

/** Whether a generator feeds what it is joined to in this step. */
function isFeeding(state: SiteState, { connection }: SiteGenerator, index: number): boolean {
  if (state.generators[index]?.phase !== 'running') return false;
  return connection === 'generator-port' ? !isGridAt(state) : state.position === 'generator';
}

/** Which generator feeds a set in this step; of one that names no set, every one. */
const generatorFor = (plan: SitePlan, state: SiteState, stackId: string): SiteGenerator | undefined =>
  plan.generators.find(
    (one, index) => isFeeding(state, one, index) && (one.stackId === undefined || one.stackId === stackId),
  );

const isGridAt = (state: SiteState): boolean =>
  state.isGridPresent && state.isGridClosed && state.position !== 'generator';

const MODE_OF: Readonly<Record<SiteGenerator['connection'], ModeKind>> = {
  'generator-port': 'generator-port',
  'transfer-switch': 'transfer-switch',
  inlet: 'generator-inlet',
};

/** The mode that the site is operated in now. */
export function modeOf(plan: SitePlan, state: SiteState): ModeKind {
  if (state.position === 'bypass' && state.isGridPresent) return 'maintenance-bypass';
  const generator = plan.generators.find((one, index) => isFeeding(state, one, index));
  if (generator !== undefined) return MODE_OF[generator.connection];
  return isGridAt(state) ? 'on-grid' : 'island';
}

const sourceFor = (plan: SitePlan, state: SiteState, set: SiteSet): 'grid' | 'generator' | undefined => {
  if (generatorFor(plan, state, set.stackId) !== undefined) return 'generator';
  return isGridAt(state) ? 'grid' : undefined;
};

/** Whether a stage that goes by the charge of the bank is held off, with hysteresis. */
function isShed({ partition, partId }: SiteBoard, now: SetState | undefined, state: SiteState): boolean {
  if (partition.kind !== 'shed' || partition.shedBelowSoc === undefined || now?.phase !== 'island')
    return false;
  const level = partition.shedBelowSoc + (state.live.has(partId) ? 0 : HYSTERESIS);
  return meanSoc(now) < level;
}

/** Whether a board is live now: what the walk says of the mode, as far as its set has come. */
function isLive(plan: SitePlan, state: SiteState, board: SiteBoard, mode: ModeKind): boolean {
  const reaches = (kind: ModeKind, from: (source: string) => boolean): boolean => {
    const facts: ModeFacts | undefined = plan.modes.get(kind);
    return facts?.live.find(({ partId }) => partId === board.partId)?.sources.some(from) ?? false;
  };
  const isGrid = (source: string): boolean => source === 'grid' && state.isGridPresent;
  const { stackId } = board.partition;
  if (mode === 'maintenance-bypass') return reaches(mode, isGrid);
  // Before the isolator of the sets there is the grid itself.
  if (stackId === undefined)
    return reaches('on-grid', isGrid) || reaches(mode, (source) => source.startsWith('generator'));
  const at = plan.sets.findIndex((set) => set.stackId === stackId);
  const now = state.sets[at];
  if (now === undefined || isShed(board, now, state)) return false;
  const ownUnit = (source: string): boolean =>
    plan.sets[at]?.units.some(
      ({ sourceId }, index) => sourceId === source && now.units[index]?.isOn === true,
    ) ?? false;
  if (now.phase === 'island') return reaches('island', ownUnit);
  if (now.phase !== 'joined') return false;
  // Sets may be joined to generators of several schools: each board goes by what its own set is joined to.
  const joinedTo = now.source === 'generator' ? generatorFor(plan, state, stackId) : undefined;
  return reaches(joinedTo === undefined ? mode : MODE_OF[joinedTo.connection], () => true);
}

/** Which boards are live, and what draws on each line of each set and of the grid side. */
function drawLoads(
  plan: SitePlan,
  state: SiteState,
  mode: ModeKind,
): Map<string | undefined, { re: number; im: number }[]> {
  const noLoad = (): { re: number; im: number }[] => plan.supply.lines.map(() => ({ re: 0, im: 0 }));
  const loads = new Map<string | undefined, { re: number; im: number }[]>();
  const live = new Set<string>();
  const liveOf = new Map<string, SiteBoard>();
  for (const board of plan.boards) {
    if (!isLive(plan, state, board, mode)) continue;
    live.add(board.partId);
    liveOf.set(board.partition.id, board);
  }
  plan.circuits.forEach((circuit, index) => {
    const now = state.circuits[index];
    const board = circuit.partitionId === undefined ? undefined : liveOf.get(circuit.partitionId);
    if (now === undefined) return;
    now.watts = 0;
    if (board === undefined || !now.isOn) {
      now.liveSinceS = undefined;
      return;
    }
    const isBack = !state.live.has(board.partId);
    if (now.liveSinceS === undefined || isBack) {
      now.liveSinceS = state.timeS + (isBack && mode === 'island' ? circuit.delayS : 0);
    }
    if (state.timeS < now.liveSinceS) return;
    const behind = mode === 'maintenance-bypass' ? undefined : board.partition.stackId;
    const sums = loads.get(behind) ?? noLoad();
    loads.set(behind, sums);
    const before = sums.reduce((sum, { re }) => sum + re, 0);
    addCircuit(circuit, state.timeS - now.liveSinceS, sums);
    now.watts = sums.reduce((sum, { re }) => sum + re, 0) - before;
  });
  addTestLoad(plan, state, live, mode, loads, noLoad);
  state.live.clear();
  for (const one of live) state.live.add(one);
  return loads;
}

/** The load bank hangs on the first backed-up board that is live. */
function addTestLoad(
  plan: SitePlan,
  state: SiteState,
  live: ReadonlySet<string>,
  mode: ModeKind,
  loads: Map<string | undefined, { re: number; im: number }[]>,
  noLoad: () => { re: number; im: number }[],
): void {
  const board = plan.boards.find(
    ({ partId, partition }) => partition.stackId !== undefined && live.has(partId),
  );
  if (board === undefined) return;
  const behind = mode === 'maintenance-bypass' ? undefined : board.partition.stackId;
  const sums = loads.get(behind) ?? noLoad();
  loads.set(behind, sums);
  state.testLoadW.forEach((watts, line) => {
    const sum = sums[line];
    if (sum !== undefined) sum.re += watts;
  });
}

/** A two-wire set is called by the charge of its bank over its contact, and let go by it: at the levels that the rehearsal plays. */
function callByCharge(plan: SitePlan, state: SiteState, generator: SiteGenerator, now: GeneratorState): void {
  const at = plan.sets.findIndex((set) => set.stackId === generator.stackId);
  const [set, bank] = [plan.sets[at], state.sets[at]];
  if (generator.start !== 'two-wire' || set === undefined || bank === undefined || bank.phase === 'off')
    return;
  const contact = plan.network.links.find(
    ({ kind, b }) => kind === 'dry-contact' && b.partId === `generator ${generator.generatorId}`,
  );
  const isReached = contact !== undefined && !pulledLinks(state.faults).has(contact.id);
  const levels = callLevels(set.compiled.stack.settings, bank.settings.floorSoc);
  const isEmpty = bank.phase === 'empty' || (bank.phase === 'island' && meanSoc(bank) <= levels.fromSoc);
  if (isReached && isEmpty && !now.isCalled) {
    now.isCalled = true;
    now.isCalledByCharge = true;
  }
  const isDone = meanSoc(bank) >= levels.toSoc || (bank.phase === 'joined' && bank.source === 'grid');
  if (now.isCalledByCharge && isDone) now.isCalled = false;
}

/** Generators start when they are called, warm up, and burn. */
function stepGenerators(plan: SitePlan, state: SiteState, dtS: number): void {
  plan.generators.forEach((generator, index) => {
    const now = state.generators[index];
    if (now === undefined) return;
    callByCharge(plan, state, generator, now);
    now.sinceS += dtS;
    if (!now.isCalled || now.litres >= generator.fuelL) {
      if (now.phase !== 'off') tell(state, `${generator.name} stops.`);
      now.phase = 'off';
      now.sinceS = 0;
      now.watts = 0;
      return;
    }
    if (now.phase === 'off') {
      now.phase = 'warming';
      now.sinceS = 0;
      tell(state, `${generator.name} starts and warms up.`);
    } else if (now.phase === 'warming' && now.sinceS >= generator.warmUpS) {
      now.phase = 'running';
      tell(state, `${generator.name} runs.`);
    }
    now.litres += ((generator.idleLPerH + (generator.lPerKwh * now.watts) / 1000) * dtS) / HOUR_S;
  });
}

/**
 * What a set draws to charge from what it is joined to, W: what is set at the port where the source stands. What an engine makes of that is
 * its own affair.
 */
function mostCharge(plan: SitePlan, state: SiteState, set: SiteSet, now: SetState): number {
  if (now.phase !== 'joined') return 0;
  const atPort =
    now.source === 'generator' && generatorFor(plan, state, set.stackId)?.connection === 'generator-port';
  return (atPort ? now.settings.generatorChargeW : now.settings.gridChargeW) * set.units.length;
}

/** Frequency of what a set is joined to: f = f_n · (1 + droop · (1 − P / P_most)) of a generator, nominal of the grid. */
function sourceHz(plan: SitePlan, state: SiteState, set: SiteSet, now: SetState): number {
  const on = generatorFor(plan, state, set.stackId);
  if (now.source !== 'generator' || on === undefined) return plan.frequencyHz;
  const watts = state.generators[plan.generators.indexOf(on)]?.watts ?? 0;
  return plan.frequencyHz * (1 + (on.droop ?? 0) * (1 - watts / on.mostW));
}

/** Each generator carries the sets that it feeds; one that is asked for more than it gives stalls. */
function loadGenerators(plan: SitePlan, state: SiteState): void {
  const feeds = plan.sets.map(({ stackId }) => generatorFor(plan, state, stackId));
  plan.generators.forEach((generator, index) => {
    const now = state.generators[index];
    if (now === undefined) return;
    now.watts = state.sets.reduce(
      (sum, set, at) =>
        sum +
        (feeds[at] === generator && set.phase === 'joined' && set.source === 'generator'
          ? set.loadW + set.chargeW
          : 0),
      0,
    );
    if (now.watts <= generator.mostW * STALLS_ABOVE) return;
    now.isCalled = false;
    tell(state, `${generator.name} stalls: ${Math.round(now.watts)} W are more than its engine gives.`);
  });
}

/** Line to neutral of the grid, V; 0 while it is away. */
export const gridVoltage = ({ lineVoltageV }: SitePlan, { timeS, isGridPresent }: SiteState): number =>
  isGridPresent ? lineVoltageV * (1 + GRID_SWELL * sin(timeS / GRID_SWELL_S)) : 0;

/** Voltage, current and grid power of each line once all sets have moved. */
function settleLines(
  plan: SitePlan,
  state: SiteState,
  loads: ReadonlyMap<string | undefined, readonly { re: number; im: number }[]>,
): void {
  const backed = state.sets.filter(({ phase }) => phase === 'joined' || phase === 'island');
  state.lines.forEach((line, index) => {
    let re = 0;
    let im = 0;
    let gridW = loads.get(undefined)?.[index]?.re ?? 0;
    plan.sets.forEach((set, at) => {
      const now = state.sets[at];
      if (now === undefined || (now.phase !== 'joined' && now.phase !== 'island')) return;
      const load = loads.get(set.stackId)?.[index] ?? { re: 0, im: 0 };
      re += load.re;
      im += load.im;
      if (now.phase === 'joined' && now.source === 'grid')
        gridW += load.re + now.chargeW * (set.lineShares[index] ?? 0);
    });
    line.loadW = re;
    line.loadVar = im;
    line.gridW = gridW;
    if (!backed.some(({ phase }) => phase === 'island'))
      line.voltageV = backed.some(({ source }) => source === 'generator')
        ? plan.lineVoltageV
        : backed.length > 0 || state.position === 'bypass'
          ? gridVoltage(plan, state)
          : 0;
    if (line.voltageV > 0) line.lowestV = Math.min(line.lowestV, line.voltageV);
    line.loadA = line.voltageV > 0 ? hypot(re, im) / line.voltageV : 0;
  });
}

/** AC-coupled sun on the boards of a set, W: it follows a live set, and a generator only where it is said to. */
function acSun({ sun }: SiteState, set: SiteSet, now: SetState): number {
  const follows =
    now.phase === 'island' ||
    (now.phase === 'joined' && (now.source === 'grid' || set.sunStaysWithGenerator));
  return follows ? set.sunAcW * sun : 0;
}

/** Moves the site on by one step. The state is written over; the same state and commands give the same site to the last bit. */
export function stepSite(plan: SitePlan, state: SiteState): void {
  const dtS = STEP_S;
  stepGenerators(plan, state, dtS);
  plan.sets.forEach((set, at) => {
    const now = state.sets[at];
    if (now === undefined) return;
    const before = now.phase;
    movePhase(state, set, now, {
      source: sourceFor(plan, state, set),
      heard: heardIn(plan, set, state.faults),
      faults: state.faults,
      wanted: [],
      sourceHz: plan.frequencyHz,
      mostChargeW: 0,
      dtS,
    });
    // A long break: contactors have let go, and everything starts again.
    if (before === 'joined' && now.phase === 'island' && now.lastTransferMs >= LETS_GO_MS) state.live.clear();
  });
  const loads = drawLoads(plan, state, modeOf(plan, state));
  plan.sets.forEach((set, at) => {
    const now = state.sets[at];
    if (now === undefined) return;
    const wanted = loads.get(set.stackId) ?? plan.supply.lines.map(() => ({ re: 0, im: 0 }));
    const sunW = acSun(state, set, now) / wanted.length;
    for (const line of wanted) line.re -= sunW;
    const input: SetInput = {
      source: sourceFor(plan, state, set),
      heard: heardIn(plan, set, state.faults),
      faults: state.faults,
      wanted,
      sourceHz: sourceHz(plan, state, set, now),
      mostChargeW: mostCharge(plan, state, set, now),
      dtS,
    };
    stepSet(plan, state, set, now, input);
  });
  settleLines(plan, state, loads);
  loadGenerators(plan, state);
  state.timeS += dtS;
}

/** Moves the site on by a time, in whole steps. */
export function runSite(plan: SitePlan, state: SiteState, seconds: number): void {
  const steps = Math.round(seconds / STEP_S);
  for (let step = 0; step < steps; step += 1) stepSite(plan, state);
}
