import { newestFirmware } from '../installation/newestFirmware.ts';
import { NOT_RECORDED } from './siteParts.ts';
import type { SiteFault } from './siteFaults.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';

/**
 * What a set is doing. `starting`: its units wake. `waiting`: it watches a source that came. `joined`: grid or generator goes through it.
 * `dark`: it may not make an island. `tripped`: it switched itself off and wants to be restarted.
 */
export const SET_PHASES = [
  'off',
  'starting',
  'waiting',
  'joined',
  'island',
  'dark',
  'tripped',
  'empty',
] as const;
export type SetPhase = (typeof SET_PHASES)[number];

export interface UnitState {
  isOn: boolean;
  /** Gives or takes on each line, A and W in all. */
  currentA: number;
  watts: number;
  batteryA: number;
  batteryV: number;
  firmware: string;
  address: number;
}

export interface ModuleState {
  isJoined: boolean;
  soc: number;
  currentA: number;
  voltageV: number;
  /** How long it has given more than it may, s. */
  overS: number;
  warmC: number;
}

export interface SetState {
  phase: SetPhase;
  sinceS: number;
  /** What came, while it is watched or joined. */
  source: 'grid' | 'generator' | undefined;
  /** How long a source that came has been watched while the island goes on, s. */
  watchedS: number;
  /** Why it is dark or tripped. */
  reason: string;
  isBatteryClosed: boolean;
  /** Share of the overload curve that is used up. */
  overload: number;
  lastTransferMs: number;
  lastReturnS: number;
  lastIslandS: number;
  batteryA: number;
  batteryV: number;
  loadW: number;
  chargeW: number;
  sunW: number;
  frequencyHz: number;
  /** Settings as they are, not as they should be. */
  settings: {
    backup: boolean;
    chargeA: number;
    count: number;
    isClockSet: boolean;
    /** What each unit charges with from the grid, and at its generator port, W. */
    gridChargeW: number;
    generatorChargeW: number;
    /** Below it the set is empty. */
    floorSoc: number;
  };
  readonly units: UnitState[];
  readonly modules: ModuleState[];
}

export interface CircuitState {
  isOn: boolean;
  /** When its supply came, s; undefined while it is dark. */
  liveSinceS: number | undefined;
  watts: number;
}

export interface GeneratorState {
  phase: 'off' | 'warming' | 'running';
  sinceS: number;
  isCalled: boolean;
  /** Called by the charge of its bank, which then lets it go as well; a hand that called it does that itself. */
  isCalledByCharge: boolean;
  watts: number;
  litres: number;
}

export interface LineState {
  /** On the backed-up side. */
  voltageV: number;
  loadW: number;
  loadVar: number;
  loadA: number;
  /** Lowest voltage since the last transfer, start or reset, V. */
  lowestV: number;
  /** Taken from the grid, all boards and sets; below nought while it is fed. */
  gridW: number;
}

export interface SiteEvent {
  readonly atS: number;
  readonly sentence: string;
}

/** The simulated site as it stands. Everything that time changes is here; the plan beside it stays. */
export interface SiteState {
  timeS: number;
  readonly seed: number;
  isGridPresent: boolean;
  /** The isolator between grid and sets. */
  isGridClosed: boolean;
  position: 'grid' | 'generator' | 'bypass';
  /** Share of a clear sky at noon. */
  sun: number;
  /** Resistive test load on each line of the first backed-up board, W. */
  readonly testLoadW: number[];
  readonly lines: LineState[];
  readonly circuits: CircuitState[];
  readonly sets: SetState[];
  readonly generators: GeneratorState[];
  /** Live boards by part id, from the step before: what comes back starts anew. */
  readonly live: Set<string>;
  faults: readonly SiteFault[];
  /** What happened, the last of it. */
  readonly events: SiteEvent[];
}

const START_SOC = 0.8;
const AIR_C = 20;
const MOST_EVENTS = 200;

const setState = (set: SiteSet): SetState => ({
  phase: 'off',
  sinceS: 0,
  source: undefined,
  watchedS: 0,
  reason: '',
  isBatteryClosed: false,
  overload: 0,
  lastTransferMs: 0,
  lastReturnS: 0,
  lastIslandS: 0,
  batteryA: 0,
  batteryV: 0,
  loadW: 0,
  chargeW: 0,
  sunW: 0,
  frequencyHz: 0,
  settings: {
    backup: true,
    chargeA: set.chargeA,
    count: set.units.length,
    isClockSet: true,
    gridChargeW: set.gridChargeW,
    generatorChargeW: set.generatorChargeW ?? 0,
    floorSoc: set.floorSoc,
  },
  units: set.units.map(({ firmware, address }) => ({
    isOn: false,
    currentA: 0,
    watts: 0,
    batteryA: 0,
    batteryV: 0,
    firmware,
    address,
  })),
  modules: set.modules.map(({ module }) => ({
    isJoined: true,
    soc: module.stateOfCharge ?? START_SOC,
    currentA: 0,
    voltageV: 0,
    overS: 0,
    warmC: AIR_C,
  })),
});

/** The newest firmware of a set. */
export const newestOf = ({ units }: Pick<SiteSet, 'units'>): string =>
  newestFirmware(units.map(({ firmware }) => firmware)) ?? NOT_RECORDED;

/** Takes out of a site what its design itself has wrong: other firmware, doubled addresses. */
export function putRight(plan: SitePlan, state: SiteState): void {
  plan.sets.forEach((set, at) =>
    state.sets[at]?.units.forEach((unit, index) => {
      unit.firmware = newestOf(set);
      unit.address = index + 1;
    }),
  );
}

/** A site that nobody has switched on yet: the grid is there, everything behind its isolators is open. */
export function newSite(plan: SitePlan, seed: number): SiteState {
  return {
    timeS: 0,
    seed,
    isGridPresent: plan.hasGrid,
    isGridClosed: false,
    position: 'grid',
    sun: 0,
    testLoadW: plan.supply.lines.map(() => 0),
    lines: plan.supply.lines.map(() => ({
      voltageV: 0,
      loadW: 0,
      loadVar: 0,
      loadA: 0,
      lowestV: plan.lineVoltageV,
      gridW: 0,
    })),
    circuits: plan.circuits.map(() => ({ isOn: false, liveSinceS: undefined, watts: 0 })),
    sets: plan.sets.map(setState),
    generators: plan.generators.map(() => ({
      phase: 'off',
      sinceS: 0,
      isCalled: false,
      isCalledByCharge: false,
      watts: 0,
      litres: 0,
    })),
    live: new Set(),
    faults: [],
    events: [],
  };
}

/** Notes what happened; the oldest goes when there are too many. */
export function tell(state: SiteState, sentence: string): void {
  state.events.push({ atS: state.timeS, sentence });
  if (state.events.length > MOST_EVENTS) state.events.shift();
}
