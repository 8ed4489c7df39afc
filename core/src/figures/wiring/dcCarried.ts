import type { Unit } from '../../installation/facts.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import { isOwnBank } from '../../installation/ownBank.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import { formatNumber } from '../../words/quantity.ts';
import { dischargeLimitA } from '../bank/bank.ts';
import type { BankCircuit } from '../bank/bankCircuit.ts';
import { type BankShare, shareBank } from '../bank/bankShare.ts';
import { branchCurrents } from '../bank/branchCurrents.ts';
import { chargeShareOf } from '../bank/chargeShare.ts';
import { lowestV } from '../bank/lowestV.ts';
import { bankCircuitOf, bankOfSet } from '../bank/ofSet.ts';
import { efficiencyAt } from '../capability/efficiency.ts';
import { type Flow, typeOfUnit } from './acCarried.ts';

const amperes = (value: number): string => `${formatNumber(value)} A`;

const lowestOf = (compiled: CompiledStack): Known<number> => {
  const given = all({ bank: bankOfSet(compiled), type: compiled.type });
  if (!given.known) return given;
  const { bank } = given.value;
  return bank === 'none'
    ? unknownAt(['stacks', compiled.stack.id, 'bank'])
    : known(lowestV(given.value, bank));
};

/**
 * The charge setting of a unit. One that nobody has stated does not matter where the most that the type charges with is no more than what
 * it draws; otherwise it is not known what flows.
 */
const chargeSetting = ({ stack }: CompiledStack, mostA: number, dischargeA: number): Known<number> =>
  stack.chargeCurrentA === undefined && mostA <= dischargeA
    ? known(0)
    : field(stack.chargeCurrentA, 'stacks', stack.id, 'chargeCurrentA');

/** What one inverter draws at its rated power and the lowest voltage: I = P / (η · V). */
const ratedDrawA = (type: InverterType, volts: number): number =>
  type.ratedW / (efficiencyAt(type, type.ratedW) * volts);

/** Voltage and current of a battery lead. */
export interface DcFlow extends Flow {
  readonly volts: number;
}

/** The battery lead of one inverter: I = P / (η · V) at its rated power and the lowest voltage, or its charge setting. */
export function unitBatteryFlow(
  installation: Installation,
  compiled: CompiledStack,
  unit: Unit,
): Known<DcFlow> {
  const given = all({ type: typeOfUnit(installation, compiled, unit), volts: lowestOf(compiled) });
  if (!given.known) return given;
  const { type, volts } = given.value;
  const dischargeA = ratedDrawA(type, volts);
  return mapKnown(chargeSetting(compiled, type.maxChargeA, dischargeA), (chargeA) =>
    chargeA > dischargeA
      ? {
          volts,
          currentA: chargeA,
          powerFactor: 1,
          because: `charge setting of the unit: ${amperes(chargeA)}`,
        }
      : {
          volts,
          currentA: dischargeA,
          powerFactor: 1,
          because: `rated power at the lowest voltage: ${formatNumber(type.ratedW)} W / (${efficiencyAt(type, type.ratedW)} · ${formatNumber(volts)} V) = ${amperes(dischargeA)}`,
        },
  );
}

interface FullPower {
  readonly circuit: BankCircuit;
  readonly share: Extract<BankShare, { kind: 'solved' }>;
  /** How much more flows at the lowest voltage than was solved, or less where the modules give no more. */
  readonly factor: number;
  /** Where the modules give less than the inverters take at their rated power. */
  readonly isHeldByModules: boolean;
}

/**
 * The bank at the rated power of all its inverters, whatever hangs on them today; where each has its own bank, that of one. No more than
 * what the module that carries most gives for good: past that the bank opens.
 */
const fullPowersOf = remember((installation: Installation) =>
  remember((compiled: CompiledStack) => fullPowerOf(installation, compiled)),
);

function fullPowerOf(installation: Installation, compiled: CompiledStack): Known<FullPower | 'none'> {
  const { stack } = compiled;
  const types = stack.units.map((unit) => [unit.id, typeOfUnit(installation, compiled, unit)] as const);
  const given = all({
    types: all(Object.fromEntries(types)),
    volts: lowestOf(compiled),
    circuit: bankCircuitOf(compiled),
  });
  if (!given.known) return given;
  const { volts, circuit } = given.value;
  if (typeof circuit === 'string') return known('none');
  const drawing = isOwnBank(stack) ? 1 : stack.units.length;
  const drawsW = stack.units.map(({ id }, at) => {
    const type = given.value.types[id];
    return type === undefined || at >= drawing ? 0 : ratedDrawA(type, volts) * volts;
  });
  const share = shareBank(circuit, drawsW);
  if (share.kind !== 'solved' || share.totalA === 0) return known('none');
  const drawW = drawsW.reduce((sum, watts) => sum + watts, 0);
  const asked = Math.max(1, drawW / volts / share.totalA);
  const allowed = Math.min(
    ...share.modules.map(({ module, currentA }) =>
      currentA > 0 ? dischargeLimitA(module.type, Infinity) / currentA : Infinity,
    ),
  );
  return known({ circuit, share, factor: Math.min(asked, allowed), isHeldByModules: allowed < asked });
}

/** A lead of a bank that is solved: what flows in it at the rated power of the inverters, or while they charge as set. */
export function branchFlow(
  installation: Installation,
  compiled: CompiledStack,
  branchId: string,
): Known<DcFlow> {
  const given = all({
    full: fullPowersOf(installation)(compiled),
    volts: lowestOf(compiled),
    type: compiled.type,
  });
  if (!given.known) return given;
  const { full, volts, type } = given.value;
  const nowhere = unknownAt(['stacks', compiled.stack.id, 'bank', 'joining']);
  if (full === 'none') return nowhere;
  const at = full.circuit.branches.findIndex(({ id }) => id === branchId);
  const solvedA = Math.abs(branchCurrents(full.circuit, full.share)[at] ?? NaN);
  if (Number.isNaN(solvedA)) return nowhere;
  const dischargeA = solvedA * full.factor;
  const setting = chargeSetting(compiled, type.maxChargeA, ratedDrawA(type, volts));
  if (!setting.known) return setting;
  const charge = chargeShareOf(compiled);
  const chargeA =
    charge.known && charge.value !== 'none' && charge.value.share.kind === 'solved'
      ? Math.abs(branchCurrents(charge.value.circuit, charge.value.share)[at] ?? 0)
      : 0;
  const currentA = Math.max(dischargeA, chargeA);
  const because =
    chargeA > dischargeA
      ? `solved while charging: ${amperes(currentA)}`
      : full.isHeldByModules
        ? `solved while the module that carries most gives what it may for good: ${amperes(currentA)}`
        : `solved at the rated power of the inverters and the lowest voltage: ${amperes(currentA)}`;
  return known({ volts, currentA, powerFactor: 1, because });
}

/** A lead of a bank that is one string, or not solved: all of it, over the strings side by side. */
export function bankLeadFlow(compiled: CompiledStack): Known<DcFlow> {
  const given = all({ bank: bankOfSet(compiled), type: compiled.type, volts: lowestOf(compiled) });
  return mapKnown(given, ({ bank, type, volts }) => {
    const side = bank === 'none' ? 1 : bank.parallelCount;
    const units = isOwnBank(compiled.stack) ? 1 : compiled.stack.units.length;
    const spread = side > 1 ? 1 + compiled.defaults.moduleShareTolerance.value : 1;
    const currentA = ((units * ratedDrawA(type, volts)) / side) * spread;
    return {
      volts,
      currentA,
      powerFactor: 1,
      because: `rated power of the inverters at the lowest voltage: ${amperes(currentA)}`,
    };
  });
}

/** Strings of an array plugged side by side: n · I_sc · 1.25. */
export function stringFlow(installation: Installation, arrayId: string, placeId: string): Known<DcFlow> {
  const compiled = installation.arrays.find(({ array }) => array.id === arrayId);
  if (compiled === undefined) return unknownAt(['arrays']);
  const { array } = compiled;
  const strings = array.places?.find(({ id }) => id === placeId)?.strings ?? 1;
  const given = all({
    type: compiled.moduleType,
    count: field(array.modulesPerString, 'arrays', array.id, 'modulesPerString'),
  });
  const factor = installation.defaults.pvCurrentFactor.value;
  return mapKnown(given, ({ type, count }) => {
    const currentA = strings * type.iscA * factor;
    return {
      volts: count * type.vmpV,
      currentA,
      powerFactor: 1,
      because: `short-circuit current in strong sun: ${strings} · ${type.iscA} · ${factor} = ${amperes(currentA)}`,
    };
  });
}
