import { z } from 'zod';
import {
  type Forgettable,
  type SiteFault,
  faultId,
  FORGETTABLE,
  placeKey,
  SITE_SETTINGS,
  type SiteSetting,
  siteFault,
} from './siteFaults.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';
import { newestOf, type SetState, type SiteState, tell } from './siteState.ts';

const key = z.string().min(1).max(120);

/** What a hand can do at the simulated site. */
export const siteCommand = z.discriminatedUnion('do', [
  z.strictObject({ do: z.literal('grid'), present: z.boolean() }),
  z.strictObject({ do: z.literal('isolator'), closed: z.boolean() }),
  z.strictObject({ do: z.literal('position'), to: z.enum(['grid', 'generator', 'bypass']) }),
  z.strictObject({ do: z.literal('battery'), stackId: key, closed: z.boolean() }),
  z.strictObject({ do: z.literal('unit'), stackId: key, unitId: key, on: z.boolean() }),
  z.strictObject({ do: z.literal('units'), on: z.boolean() }),
  z.strictObject({ do: z.literal('circuit'), circuitId: key, on: z.boolean() }),
  z.strictObject({ do: z.literal('circuits'), on: z.boolean() }),
  z.strictObject({
    do: z.literal('test-load'),
    line: z.number().int().min(0).max(2),
    watts: z.number().min(0).max(1e6),
  }),
  z.strictObject({ do: z.literal('sun'), share: z.number().min(0).max(1) }),
  z.strictObject({ do: z.literal('charge'), stackId: key, soc: z.number().min(0).max(1) }),
  z.strictObject({ do: z.literal('generator'), generatorId: key, run: z.boolean() }),
  z.strictObject({
    do: z.literal('setting'),
    stackId: key,
    setting: z.enum(SITE_SETTINGS),
    value: z.number().min(0).max(1e6),
  }),
  z.strictObject({ do: z.literal('firmware'), stackId: key, unitId: key }),
  z.strictObject({ do: z.literal('plant'), fault: siteFault }),
  z.strictObject({ do: z.literal('mend'), fault: siteFault }),
]);
export type SiteCommand = z.infer<typeof siteCommand>;

/** What stands in a unit before somebody sets it: a quarter of the charge current, one unit, no clock, no backup. */
const FACTORY_CHARGE = 0.25;
/** What a unit shows that was left out when the others were loaded. */
const OLDER = 'older';

function applySetting(set: SiteSet, { settings }: SetState, setting: SiteSetting, value: number): void {
  switch (setting) {
    case 'backup':
      settings.backup = value !== 0;
      break;
    case 'charge':
      settings.chargeA = Math.min(value, set.type.maxChargeA);
      break;
    case 'count':
      settings.count = Math.round(value);
      break;
    case 'clock':
      settings.isClockSet = value !== 0;
      break;
    case 'grid-charge':
      settings.gridChargeW = value;
      break;
    case 'generator-charge':
      settings.generatorChargeW = value;
      break;
    case 'cutoff':
      // What the cells bear stays a floor of its own.
      settings.floorSoc = Math.max(Math.min(1, value), set.leastSoc);
      break;
  }
}

/** What a setting should be, and what it is when it was forgotten. */
export function settingValue(set: SiteSet, setting: Forgettable, which: 'wanted' | 'factory'): number {
  const isWanted = which === 'wanted';
  switch (setting) {
    case 'backup':
    case 'clock':
      return isWanted ? 1 : 0;
    case 'charge':
      return isWanted ? set.chargeA : set.chargeA * FACTORY_CHARGE;
    case 'count':
      return isWanted ? set.units.length : 1;
  }
}

const isForgettable = (text: string): text is Forgettable => Object.hasOwn(FORGETTABLE, text);

/** Puts into the state what a fault changes in it, or takes it out again. What it does to wires and cells is read from the list. */
function shape(plan: SitePlan, state: SiteState, { kind, at }: SiteFault, isPlanted: boolean): void {
  plan.sets.forEach((set, index) => {
    const now = state.sets[index];
    if (now === undefined) return;
    for (const setting of Object.keys(FORGETTABLE))
      if (kind === 'setting-forgotten' && isForgettable(setting) && at === placeKey(set.stackId, setting))
        applySetting(set, now, setting, settingValue(set, setting, isPlanted ? 'factory' : 'wanted'));
    set.units.forEach(({ unit, address }, position) => {
      const one = now.units[position];
      if (one === undefined || at !== placeKey(set.stackId, unit.id)) return;
      if (kind === 'address-doubled') one.address = isPlanted ? (now.units[0]?.address ?? address) : address;
      if (kind === 'firmware-missed') one.firmware = isPlanted ? OLDER : newestOf(set);
    });
  });
}

export function plantFault(plan: SitePlan, state: SiteState, fault: SiteFault): void {
  if (state.faults.some((one) => faultId(one) === faultId(fault))) return;
  state.faults = [...state.faults, fault];
  shape(plan, state, fault, true);
}

export function mendFault(plan: SitePlan, state: SiteState, fault: SiteFault): void {
  const left = state.faults.filter((one) => faultId(one) !== faultId(fault));
  if (left.length === state.faults.length) return;
  state.faults = left;
  shape(plan, state, fault, false);
}

function setSetting(
  plan: SitePlan,
  state: SiteState,
  { stackId, setting, value }: Extract<SiteCommand, { do: 'setting' }>,
): string | undefined {
  const at = plan.sets.findIndex((set) => set.stackId === stackId);
  const [set, now] = [plan.sets[at], state.sets[at]];
  if (set === undefined || now === undefined) return 'There is no such set.';
  applySetting(set, now, setting, value);
  // Set right by hand, it is forgotten no longer.
  if (isForgettable(setting) && Math.abs(value - settingValue(set, setting, 'wanted')) < 1e-6)
    state.faults = state.faults.filter(
      (one) => one.kind !== 'setting-forgotten' || one.at !== placeKey(stackId, setting),
    );
  return undefined;
}

/** Loads the newest firmware of the set into a unit. */
function loadFirmware(plan: SitePlan, state: SiteState, stackId: string, unitId: string): string | undefined {
  const at = plan.sets.findIndex((set) => set.stackId === stackId);
  const position = plan.sets[at]?.units.findIndex(({ unit }) => unit.id === unitId) ?? -1;
  const unit = state.sets[at]?.units[position];
  if (unit === undefined) return 'There is no such unit.';
  const set = plan.sets[at];
  if (set !== undefined) unit.firmware = newestOf(set);
  const fault: SiteFault = { kind: 'firmware-missed', at: placeKey(stackId, unitId) };
  state.faults = state.faults.filter((one) => faultId(one) !== faultId(fault));
  tell(state, `${plan.sets[at]?.units[position]?.label ?? 'A unit'} has its firmware loaded anew.`);
  return undefined;
}

/** A module that is joined the wrong way round shorts those beside it: its fuse goes, if it has one. */
function burnReversed(plan: SitePlan, state: SiteState, at: number): void {
  const set = plan.sets[at];
  set?.modules.forEach(({ module, label }, index) => {
    const now = state.sets[at]?.modules[index];
    const isReversed = state.faults.some(
      ({ kind, at: where }) => kind === 'polarity-swapped' && where === placeKey(set.stackId, module.id),
    );
    if (now === undefined || !isReversed || !now.isJoined) return;
    now.isJoined = false;
    tell(state, `${REVERSED}${label} was joined the wrong way round. On a real bank: an arc, and a fire.`);
  });
}

/** How the worst that can happen at a site begins, so that it can be told from the rest. */
export const REVERSED = 'Destroyed: ';

const onOff = (isOn: boolean): string => (isOn ? 'on' : 'off');

function switchUnit(
  plan: SitePlan,
  state: SiteState,
  { stackId, unitId, on }: Extract<SiteCommand, { do: 'unit' }>,
): string | undefined {
  const at = plan.sets.findIndex((set) => set.stackId === stackId);
  const position = plan.sets[at]?.units.findIndex(({ unit }) => unit.id === unitId) ?? -1;
  const unit = state.sets[at]?.units[position];
  if (unit === undefined) return 'There is no such unit.';
  unit.isOn = on;
  tell(state, `${plan.sets[at]?.units[position]?.label ?? 'unit'} switched ${onOff(on)}.`);
  return undefined;
}

function switchCircuits(
  plan: SitePlan,
  state: SiteState,
  isOn: boolean,
  circuitId?: string,
): string | undefined {
  let found = circuitId === undefined;
  plan.circuits.forEach((circuit, index) => {
    const now = state.circuits[index];
    if (now === undefined || (circuitId !== undefined && circuit.circuitId !== circuitId)) return;
    found = true;
    now.isOn = isOn;
    now.liveSinceS = undefined;
  });
  return found ? undefined : 'There is no such circuit.';
}

/** Does what a hand does; the sentence says why it cannot be done. */
export function commandSite(plan: SitePlan, state: SiteState, command: SiteCommand): string | undefined {
  switch (command.do) {
    case 'grid':
      if (!plan.hasGrid) return 'This site has no grid.';
      if (state.isGridPresent !== command.present)
        tell(state, command.present ? 'The grid is back.' : 'The grid is gone.');
      state.isGridPresent = command.present;
      return undefined;
    case 'isolator':
      state.isGridClosed = command.closed;
      tell(state, `The isolator of the sets is ${command.closed ? 'closed' : 'open'}.`);
      return undefined;
    case 'position':
      state.position = command.to;
      tell(state, `The switch stands at ${command.to}.`);
      return undefined;
    case 'battery': {
      const at = plan.sets.findIndex((set) => set.stackId === command.stackId);
      const now = state.sets[at];
      if (now === undefined) return 'There is no such set.';
      now.isBatteryClosed = command.closed;
      tell(
        state,
        `The battery of ${plan.sets[at]?.name ?? 'the set'} is ${command.closed ? 'closed' : 'open'}.`,
      );
      if (command.closed) burnReversed(plan, state, at);
      return undefined;
    }
    case 'unit':
      return switchUnit(plan, state, command);
    case 'units':
      for (const set of state.sets) for (const unit of set.units) unit.isOn = command.on;
      tell(state, `All units switched ${onOff(command.on)}.`);
      return undefined;
    case 'circuit':
      return switchCircuits(plan, state, command.on, command.circuitId);
    case 'circuits':
      return switchCircuits(plan, state, command.on);
    case 'test-load':
      if (command.line >= state.testLoadW.length) return 'There is no such line.';
      state.testLoadW[command.line] = command.watts;
      for (const line of state.lines) line.lowestV = plan.lineVoltageV;
      return undefined;
    case 'sun':
      state.sun = command.share;
      return undefined;
    case 'charge': {
      const now = state.sets[plan.sets.findIndex((set) => set.stackId === command.stackId)];
      if (now === undefined) return 'There is no such set.';
      for (const module of now.modules) module.soc = command.soc;
      return undefined;
    }
    case 'generator': {
      const now =
        state.generators[plan.generators.findIndex((one) => one.generatorId === command.generatorId)];
      if (now === undefined) return 'There is no such generator.';
      now.isCalled = command.run;
      now.isCalledByCharge = false;
      return undefined;
    }
    case 'setting':
      return setSetting(plan, state, command);
    case 'firmware':
      return loadFirmware(plan, state, command.stackId, command.unitId);
    case 'plant':
      plantFault(plan, state, command.fault);
      return undefined;
    case 'mend':
      mendFault(plan, state, command.fault);
      return undefined;
  }
}
