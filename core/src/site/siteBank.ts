import { square } from '../values/power.ts';
import { shareBank } from '../figures/bank/bankShare.ts';
import { type BankCircuit, restingV } from '../figures/bank/bankCircuit.ts';
import { dischargeLimitA } from '../figures/bank/bank.ts';
import { withVoltages } from '../figures/bank/nearEmpty.ts';
import { leadOhm } from '../codes/leads.ts';
import { AGED_FACTOR, LONGER_M, placeKey, type SiteFault, WEAK_OHM } from './siteFaults.ts';
import type { SiteSet } from './siteTypes.ts';
import type { ModuleState, SetState } from './siteState.ts';

const HOUR_S = 3600;
const MILLI = 1e-3;
const AIR_C = 20;
/** A module that is off the bank stands behind so much, Ohm: nothing to speak of flows. */
const OPEN_OHM = 1e7;
/** Where a bank has no resting curve, its voltage falls by this share of nominal from full to empty. */
const SLOPE = 0.12;
/** How a module warms: so many kelvin for its limit current, with this time constant, s. */
const WARMTH_K = 15;
const WARMTH_S = 1200;

/** What a module has in series with it beyond what the design says: age, a longer lead (both poles), a weak joint, Ohm. */
export function extraOhm(
  set: SiteSet,
  moduleId: string,
  innerOhm: number,
  faults: readonly SiteFault[],
): number {
  const at = placeKey(set.stackId, moduleId);
  const bank = set.compiled.stack.bank;
  const own = typeof bank === 'object' ? bank.modules.find(({ id }) => id === moduleId) : undefined;
  const areaMm2 = own?.lead?.areaMm2 ?? (typeof bank === 'object' ? bank.lead?.areaMm2 : undefined);
  const leadC = (typeof bank === 'object' ? bank.leadC : undefined) ?? set.compiled.defaults.leadC.value;
  return faults.reduce((sum, fault) => {
    if (fault.at !== at) return sum;
    switch (fault.kind) {
      case 'module-aged':
        return sum + innerOhm * (AGED_FACTOR - 1);
      case 'lead-lengthened':
        // It is planted only where the leads of a bank are stated.
        return areaMm2 === undefined ? sum : sum + 2 * leadOhm(LONGER_M, areaMm2, leadC);
      case 'terminal-weak':
        return sum + WEAK_OHM;
      default:
        return sum;
    }
  }, 0);
}

const innerOhm = ({ type }: BankCircuit['modules'][number]): number => (type.internalMilliohm ?? 0) * MILLI;

/** The bank as it is: cells at their charge, modules off the bank out of it, faults in series with those they are in. */
export function bankNow(
  set: SiteSet,
  circuit: BankCircuit,
  modules: readonly ModuleState[],
  faults: readonly SiteFault[],
): BankCircuit {
  const charged = withVoltages(circuit, ({ type, emfV }, index) => {
    const soc = modules[index]?.soc ?? 0.5;
    return restingV(type, soc) ?? emfV * (1 + SLOPE * (soc - 0.5));
  });
  const sources = charged.network.sources.map((source) => ({ ...source }));
  charged.modules.forEach((module, index) => {
    const source = sources[module.source];
    if (source === undefined) return;
    const joined = modules[index]?.isJoined ?? true;
    sources[module.source] = {
      ...source,
      ohm: joined ? source.ohm + extraOhm(set, module.id, innerOhm(module), faults) : OPEN_OHM,
    };
  });
  return { ...charged, network: { ...charged.network, sources } };
}

/** Resting voltage of a whole string of modules, and its resistance. */
function stringOf(
  set: SiteSet,
  modules: readonly ModuleState[],
  faults: readonly SiteFault[],
): { emfV: number; ohm: number } {
  const { compiled, bank } = set;
  const stated = typeof compiled.stack.bank === 'object' ? compiled.stack.bank : undefined;
  if (bank === 'none' || stated === undefined) return { emfV: 0, ohm: 0 };
  let emfV = 0;
  let ohm = 0;
  set.modules.forEach(({ module }, index) => {
    const type = compiled.batteryTypes[module.batteryTypeId ?? stated.batteryTypeId ?? ''] ?? bank.type;
    const soc = modules[index]?.soc ?? 0.5;
    emfV += restingV(type, soc) ?? type.nominalV * (1 + SLOPE * (soc - 0.5));
    const inner = (type.internalMilliohm ?? 0) * MILLI * (module.resistanceFactor ?? 1);
    ohm += inner + extraOhm(set, module.id, inner, faults);
  });
  return { emfV, ohm };
}

export interface BankStep {
  /** The bank cannot give what is asked of it. */
  readonly isTooMuch: boolean;
}

function take(
  set: SiteSet,
  now: SetState,
  index: number,
  currentA: number,
  voltageV: number,
  dtS: number,
): void {
  const module = now.modules[index];
  const plan = set.modules[index];
  if (module === undefined || plan === undefined || set.bank === 'none') return;
  module.currentA = currentA;
  module.voltageV = voltageV;
  if (plan.capacityAh > 0)
    module.soc = Math.min(1, Math.max(0, module.soc - (currentA * dtS) / HOUR_S / plan.capacityAh));
  const limitA = Math.max(1e-9, dischargeLimitA(set.bank.type, Infinity));
  const wantedC = AIR_C + WARMTH_K * square(currentA / limitA);
  module.warmC += (wantedC - module.warmC) * Math.min(1, dtS / WARMTH_S);
  module.overS = currentA > limitA ? module.overS + dtS : 0;
}

/** A string carries one current: U = Σ EMF − I · ΣR and P = U · I, solved for the smaller I. */
function stepString(
  set: SiteSet,
  now: SetState,
  totalW: number,
  faults: readonly SiteFault[],
  dtS: number,
): BankStep {
  const { emfV, ohm } = stringOf(set, now.modules, faults);
  const under = emfV * emfV - 4 * ohm * totalW;
  if (under < 0) return { isTooMuch: true };
  const currentA = ohm > 0 ? (emfV - Math.sqrt(under)) / (2 * ohm) : emfV > 0 ? totalW / emfV : 0;
  now.batteryV = emfV - currentA * ohm;
  now.batteryA = currentA;
  const count = Math.max(1, now.modules.length);
  now.modules.forEach((_, index) => take(set, now, index, currentA, now.batteryV / count, dtS));
  for (const unit of now.units) {
    unit.batteryV = now.isBatteryClosed ? now.batteryV : 0;
    unit.batteryA = totalW === 0 ? 0 : currentA / Math.max(1, now.units.length);
  }
  return { isTooMuch: false };
}

/**
 * One step of the bank for a DC power of each unit, W; below nought while it is charged. Currents come from the solved network, and
 * charge, warmth and the time above the limit from the currents.
 */
export function stepBank(
  set: SiteSet,
  now: SetState,
  powersW: readonly number[],
  faults: readonly SiteFault[],
  dtS: number,
): BankStep {
  if (set.bank === 'none') return { isTooMuch: false };
  const drawn = now.isBatteryClosed ? powersW : powersW.map(() => 0);
  if (set.circuit === undefined)
    return stepString(
      set,
      now,
      drawn.reduce((sum, one) => sum + one, 0),
      faults,
      dtS,
    );
  const circuit = bankNow(set, set.circuit, now.modules, faults);
  const share = shareBank(circuit, drawn);
  if (share.kind !== 'solved') return { isTooMuch: share.kind === 'too-much' };
  share.modules.forEach(({ module, currentA }, index) => {
    const source = circuit.network.sources[module.source];
    const terminalV = module.emfV - currentA * innerOhm(module);
    take(
      set,
      now,
      index,
      now.modules[index]?.isJoined === true ? currentA : 0,
      source === undefined ? 0 : terminalV,
      dtS,
    );
  });
  now.batteryA = share.totalA;
  now.batteryV = share.taps[0]?.voltageV ?? 0;
  share.taps.forEach(({ currentA, voltageV }, index) => {
    const unit = now.units[index];
    if (unit === undefined) return;
    unit.batteryA = currentA;
    unit.batteryV = now.isBatteryClosed ? voltageV : 0;
  });
  return { isTooMuch: false };
}

/** Mean state of charge of the modules that are joined. */
export function meanSoc({ modules }: Pick<SetState, 'modules'>): number {
  const joined = modules.filter(({ isJoined }) => isJoined);
  return joined.length === 0 ? 0 : joined.reduce((sum, { soc }) => sum + soc, 0) / joined.length;
}
