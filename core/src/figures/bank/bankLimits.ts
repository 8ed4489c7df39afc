import { leadAmpacityA, leadShortTimeA } from '../../codes/leadAmpacity.ts';
import { codeProfile } from '../../codes/profile.ts';
import { all, field, type Known, known, mapKnown, unknownAt } from '../../values/known.ts';
import type { Bank, Site } from '../../installation/facts.ts';
import { allowedMultiple } from '../../network/overload.ts';
import type { CompiledBank } from './bank.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';

export type BankLimitKey = 'modules' | 'inverters' | 'breaker' | 'cable' | 'bar' | 'management';

/** One limit on the current of a bank, at its output. 'none' where this bank has no such limit. */
export interface BankLimit {
  readonly key: BankLimitKey;
  readonly what: string;
  readonly amperes: Known<number | 'none'>;
}

export interface BankLimitInputs {
  readonly site: Site;
  readonly compiled: CompiledStack;
  readonly type: InverterType;
  readonly bank: CompiledBank;
  /** So many times the limits of the hardest-working inverter is what the bank can be asked for. */
  readonly evenUnits: number;
  /** Share of the hardest-working module against the mean. */
  readonly spread: number;
  /** How long the current flows; undefined for good. */
  readonly durationS: number | undefined;
}

const pathOf = ({ compiled }: BankLimitInputs): string[] => ['stacks', compiled.stack.id, 'bank'];

const bankOf = ({ compiled }: BankLimitInputs): Bank | undefined =>
  typeof compiled.stack.bank === 'object' ? compiled.stack.bank : undefined;

/** Whether every inverter, every group or every module on the bank has a device of its own. */
function hasOwnDevices({ stack, batteryDevices }: CompiledStack): boolean {
  if (typeof stack.bank !== 'object') return false;
  const { modules, joining, groupSize } = stack.bank;
  const fitted = batteryDevices.filter((device) => device.fitted === 'yes');
  const covers = (role: string, wanted: number): boolean =>
    fitted.filter((device) => device.role === role).length >= wanted;
  return (
    covers('battery-unit', stack.units.length) ||
    covers('battery-module', modules.filter((module) => module.fitted !== 'taken-out').length) ||
    (joining === 'groups-on-bar' &&
      groupSize !== undefined &&
      covers('battery-group', Math.ceil(modules.length / groupSize)))
  );
}

/** A device must be rated above a continuous load by the factor of the code profile; a short load is held against its curve. */
function breakerA(inputs: BankLimitInputs): Known<number | 'none'> {
  const { compiled, site, durationS } = inputs;
  // With a device for each inverter, group or module the bank needs none of its own; each is held against its own current.
  if (!compiled.breakerA.known && hasOwnDevices(compiled)) return known('none');
  const path = pathOf(inputs);
  const ratedA = compiled.breakerA;
  if (durationS === undefined) {
    const given = all({ ratedA, profile: field(site.codeProfile, 'site', 'codeProfile') });
    return mapKnown(given, (one) => one.ratedA / codeProfile(one.profile).continuousFactor);
  }
  const device = compiled.breaker;
  const curve = device.known
    ? field(device.value.timeCurrent, 'types', device.value.id, 'timeCurrent')
    : unknownAt([...path, 'breakerTypeId']);
  return mapKnown(all({ ratedA, curve }), (one) => one.ratedA * allowedMultiple(one.curve, durationS));
}

/** The thinnest of the inverters' leads, taken as that of the hardest-working one. */
function cableA(inputs: BankLimitInputs): Known<number> {
  const { compiled, site, evenUnits, durationS } = inputs;
  const shared = bankOf(inputs)?.inverterLead;
  const path = [...pathOf(inputs), 'inverterLead'];
  const areas = compiled.stack.units.map((unit) => unit.batteryLead?.areaMm2 ?? shared?.areaMm2);
  if (areas.some((area) => area === undefined)) return unknownAt([...path, 'areaMm2']);
  const areaMm2 = Math.min(...areas.map((area) => area ?? 0));
  const short = durationS === undefined ? undefined : leadShortTimeA(areaMm2, durationS);
  if (short !== undefined) return known(evenUnits * short);
  const given = all({
    profile: field(site.codeProfile, 'site', 'codeProfile'),
    ambientC: field(site.equipmentHighestC, 'site', 'equipmentHighestC'),
  });
  if (!given.known) return given;
  const { profile, ambientC } = given.value;
  const each = leadAmpacityA(profile, areaMm2, ambientC, compiled.tableValues);
  return each === 'not tabulated'
    ? unknownAt([...path, 'areaMm2'])
    : known((evenUnits * each) / codeProfile(profile).continuousFactor);
}

/** The battery management speaks only in a closed loop; without one no limit of its own may be counted on. */
function managementA(inputs: BankLimitInputs): Known<number | 'none'> {
  const { bank } = inputs;
  if (bank.type.groupLimitA === undefined) return known('none');
  return mapKnown(field(bankOf(inputs)?.comms?.loop, ...pathOf(inputs), 'comms'), (loop) =>
    loop === 'open' ? 'none' : (bank.type.groupLimitA ?? 'none'),
  );
}

/** What the inverters draw at most; what they are set to below their type holds for good and for a time. */
function inverterLimit({ compiled, type, evenUnits }: BankLimitInputs, overload: number): BankLimit {
  const setA = compiled.stack.dischargeCurrentA ?? Infinity;
  const isSet = setA < type.maxDischargeA;
  const eachA = isSet ? setA : type.maxDischargeA * overload;
  return {
    key: 'inverters',
    what: isSet ? 'the discharge setting of the inverters' : 'the inverters',
    amperes: known(evenUnits * eachA),
  };
}

/** Every limit on the battery current for a time, or for good. The smallest of the known ones binds. */
export function bankLimits(inputs: BankLimitInputs): BankLimit[] {
  const { bank, type, spread, durationS, compiled } = inputs;
  const isPeak = durationS !== undefined && durationS <= bank.type.peakS;
  const overload = durationS === undefined ? 1 : allowedMultiple(type.overloadCurve, durationS);
  return [
    {
      key: 'modules',
      what: 'the modules at the share of the hardest-working one',
      amperes: known((isPeak ? bank.peakDischargeA : bank.continuousDischargeA) / spread),
    },
    inverterLimit(inputs, overload),
    { key: 'breaker', what: 'the battery breaker', amperes: breakerA(inputs) },
    { key: 'cable', what: 'the battery leads of the inverters', amperes: cableA(inputs) },
    {
      key: 'bar',
      what: 'the combiner bar',
      amperes: compiled.bar.known
        ? known(compiled.bar.value === 'none' ? 'none' : compiled.bar.value.ratedA)
        : compiled.bar,
    },
    { key: 'management', what: 'the battery management', amperes: managementA(inputs) },
  ];
}
