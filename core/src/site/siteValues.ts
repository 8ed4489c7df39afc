import { MODE_KINDS } from '../installation/modeKinds.ts';
import { meanSoc } from './siteBank.ts';
import { heardIn } from './siteBus.ts';
import { messageBits, messagesOf } from './siteMessages.ts';
import { NOT_RECORDED } from './siteParts.ts';
import type { SitePlan } from './siteTypes.ts';
import { type GeneratorState, newestOf, SET_PHASES, type SetState, type SiteState } from './siteState.ts';
import { gridVoltage, modeOf } from './siteStep.ts';
import { MAP_NUMBER, type MapRow, rowsOfSite } from './registerTable.ts';
import { encodeValue } from './registerValues.ts';

/** How far an instrument of the site may be off, as a share either way: each has its own error, which stays. */
const GAIN_SHARE = 0.002;

/** A figure between 0 and 1 that belongs to a seed and a name (FNV-1a). */
function share(seed: number, name: string): number {
  let hash = (0x811c9dc5 ^ seed) >>> 0;
  for (let at = 0; at < name.length; at += 1) hash = Math.imul(hash ^ name.charCodeAt(at), 0x01000193) >>> 0;
  return hash / 0x100000000;
}

/** The gain of an instrument: near one, and always the same for one place of one site. */
export const gainOf = (seed: number, name: string): number => 1 + GAIN_SHARE * (2 * share(seed, name) - 1);

type Values = Record<string, number | null>;

/** Figures that an instrument takes, by the end of their name: their gain shows. Counts, states and settings are exact. */
const isMeasured = (key: string): boolean =>
  /(?:V|A|W)$/.test(key) && !/(?:chargeA|ChargeW|testLoadW)$/.test(key);

const GENERATOR_PHASES: readonly GeneratorState['phase'][] = ['off', 'warming', 'running'];

function siteBlock(plan: SitePlan, state: SiteState): Values {
  return {
    map: MAP_NUMBER,
    lines: plan.supply.lines.length,
    sets: plan.sets.length,
    units: plan.sets.reduce((sum, { units }) => sum + units.length, 0),
    modules: plan.sets.reduce((sum, { modules }) => sum + modules.length, 0),
    generators: plan.generators.length,
    instruments: plan.instruments.length,
    circuits: plan.circuits.length,
    clockS: Math.floor(state.timeS + 1e-9),
    mode: MODE_KINDS.indexOf(modeOf(plan, state)),
    gridHz: state.isGridPresent ? plan.frequencyHz : 0,
    isolator: state.isGridClosed ? 1 : 0,
  };
}

function setBlock(plan: SitePlan, state: SiteState, at: number): Values {
  const set = plan.sets[at];
  const now: SetState | undefined = state.sets[at];
  if (set === undefined || now === undefined) return {};
  const heard = heardIn(plan, set, state.faults);
  const { settings } = now;
  return {
    phase: SET_PHASES.indexOf(now.phase),
    unitsSeen: set.units.filter(
      ({ unit }, index) => now.units[index]?.isOn === true && heard.units.has(unit.id),
    ).length,
    modulesSeen: now.modules.filter(
      ({ isJoined }, index) => isJoined && heard.modules.has(set.modules[index]?.module.id ?? ''),
    ).length,
    frequencyHz: now.phase === 'island' || now.phase === 'joined' ? now.frequencyHz : 0,
    batteryV: set.bank === 'none' ? null : now.batteryV,
    batteryA: set.bank === 'none' ? null : now.batteryA,
    soc: set.bank === 'none' ? null : 100 * meanSoc(now),
    loadW: now.loadW,
    chargeW: now.chargeW,
    sunW: now.sunW,
    transferMs: now.lastTransferMs === 0 ? null : now.lastTransferMs,
    returnS: now.lastReturnS === 0 ? null : now.lastReturnS,
    islandS: now.lastIslandS === 0 ? null : now.lastIslandS,
    messages: messageBits(messagesOf(plan, state, set, now)),
    backup: settings.backup ? 1 : 0,
    chargeA: settings.chargeA,
    count: settings.count,
    clockSet: settings.isClockSet ? 1 : 0,
    battery: set.bank === 'none' ? null : now.isBatteryClosed ? 1 : 0,
    gridChargeW: settings.gridChargeW,
    generatorChargeW: settings.generatorChargeW,
    cutoff: set.bank === 'none' ? null : 100 * settings.floorSoc,
  };
}

function unitBlocks(plan: SitePlan, state: SiteState): Values[] {
  return plan.sets.flatMap((set, at) =>
    set.units.map(({ isHost }, index): Values => {
      const unit = state.sets[at]?.units[index];
      if (unit === undefined) return {};
      const newest = newestOf(set);
      return {
        on: unit.isOn ? 1 : 0,
        address: unit.address,
        host: isHost ? 1 : 0,
        currentA: unit.currentA,
        powerW: unit.watts,
        batteryV: set.bank === 'none' ? null : unit.batteryV,
        batteryA: set.bank === 'none' ? null : unit.batteryA,
        firmware: newest === NOT_RECORDED ? null : unit.firmware === newest ? 1 : 0,
      };
    }),
  );
}

const moduleBlocks = (state: SiteState): Values[] =>
  state.sets.flatMap(({ modules }) =>
    modules.map(({ voltageV, currentA, soc, warmC, isJoined }): Values => ({
      voltageV,
      currentA,
      soc: 100 * soc,
      warmC,
      joined: isJoined ? 1 : 0,
    })),
  );

/** What an instrument reads, W: its lines together; the other way round where it is turned. */
function instrumentW(plan: SitePlan, state: SiteState, at: number): number | null {
  const instrument = plan.instruments[at];
  // Nobody has said where it looks: it has no figure, not nought.
  if (instrument?.at === undefined) return null;
  const sum = instrument.lines.reduce((total, line) => {
    const one = state.lines[line];
    return total + (instrument.at === 'backed-up-board' ? (one?.loadW ?? 0) : (one?.gridW ?? 0));
  }, 0);
  if (instrument.at === 'generator') return state.generators.reduce((total, { watts }) => total + watts, 0);
  if (instrument.at === 'array') return state.sets.reduce((total, { sunW }) => total + sunW, 0);
  const isTurned = state.faults.some(
    ({ kind, at: where }) => kind === 'sensor-turned' && where === instrument.id,
  );
  return isTurned ? -sum : sum;
}

function blocksOf(plan: SitePlan, state: SiteState): Readonly<Record<string, readonly Values[]>> {
  return {
    site: [siteBlock(plan, state)],
    line: state.lines.map(({ voltageV, loadA, loadW, lowestV }, line): Values => ({
      voltageV,
      loadA,
      loadW,
      lowestV,
      gridV: gridVoltage(plan, state),
      testLoadW: state.testLoadW[line] ?? 0,
    })),
    set: plan.sets.map((_, at) => setBlock(plan, state, at)),
    unit: unitBlocks(plan, state),
    module: moduleBlocks(state),
    generator: state.generators.map(({ isCalled, phase, watts, litres }): Values => ({
      call: isCalled ? 1 : 0,
      phase: GENERATOR_PHASES.indexOf(phase),
      powerW: watts,
      frequencyHz: phase === 'off' ? 0 : plan.frequencyHz,
      litres,
    })),
    instrument: plan.instruments.map((_, at): Values => ({ powerW: instrumentW(plan, state, at) })),
    circuit: state.circuits.map(({ isOn, watts }): Values => ({ on: isOn ? 1 : 0, powerW: watts })),
  };
}

/** Everything that can be read at the site now, by key as "unit.3.currentA"; with the error of its instrument. */
export function siteValues(plan: SitePlan, state: SiteState): Values {
  const values: Values = {};
  for (const [block, things] of Object.entries(blocksOf(plan, state)))
    things.forEach((fields, index) => {
      for (const [field, value] of Object.entries(fields)) {
        const key = block === 'site' ? `site.${field}` : `${block}.${index + 1}.${field}`;
        values[key] = value === null || !isMeasured(key) ? value : value * gainOf(state.seed, key);
      }
    });
  return values;
}

/** The site as registers: what is not in its map has no register. */
export interface SiteRegisters {
  readonly words: ReadonlyMap<number, number>;
  readonly rows: readonly MapRow[];
}

export function siteRegisters(plan: SitePlan, state: SiteState): SiteRegisters {
  const values = siteValues(plan, state);
  const rows = rowsOfSite(values);
  const words = new Map<number, number>();
  for (const row of rows)
    encodeValue(row, values[row.key] ?? null).forEach((word, offset) =>
      words.set(row.address + offset, word),
    );
  return { words, rows };
}
