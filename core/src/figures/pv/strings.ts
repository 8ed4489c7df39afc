import type { InverterType } from '../../catalogue/inverterType.ts';
import type { PvModuleType } from '../../catalogue/sourceTypes.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { PvArray, Site } from '../../installation/facts.ts';
import type { CompiledArray, Installation } from '../../installation/installation.ts';

/** Temperature at which module figures are stated, °C. */
const STATED_C = 25;
/** How much hotter than the air cells run in full sun, K, where the type does not say. */
const HOT_RISE_K = 30;

/** Voltages of one string over the temperatures of the site. */
export interface StringVolts {
  /** Open circuit at the record low. */
  readonly coldOpenV: number;
  /** Open circuit in full sun at the record high. */
  readonly hotOpenV: number;
  /** Operating in full sun at the record high. */
  readonly hotWorkV: number;
  /** Operating at the record low. */
  readonly coldWorkV: number;
  readonly hotCellC: number;
}

/** U(T) = n · U(25) · (1 + β · (T − 25)), cells at air temperature in the cold, and hotter than the air in the sun. */
export function stringVolts(
  type: PvModuleType,
  count: number,
  lowestC: number,
  highestC: number,
): StringVolts {
  const hotCellC = highestC + (type.hotCellRiseK ?? HOT_RISE_K);
  const at = (volts: number, perK: number, cellC: number): number =>
    count * volts * (1 + perK * (cellC - STATED_C));
  return {
    coldOpenV: at(type.vocV, type.vocPerK, lowestC),
    hotOpenV: at(type.vocV, type.vocPerK, hotCellC),
    hotWorkV: at(type.vmpV, type.vmpPerK, hotCellC),
    coldWorkV: at(type.vmpV, type.vmpPerK, lowestC),
    hotCellC,
  };
}

export type PvInputs = NonNullable<InverterType['pvInputs']>;

/** Strings of one array on one input. */
export interface StringsAt {
  readonly array: PvArray;
  readonly place: NonNullable<PvArray['places']>[number];
  readonly moduleType: Known<PvModuleType>;
  readonly inputs: Known<PvInputs>;
  readonly label: string;
}

function stringsOf({ array, moduleType }: CompiledArray, installation: Installation): StringsAt[] {
  return (array.places ?? []).map((place) => {
    const compiled = installation.stacks.find((one) => one.stack.id === place.stackId);
    const unit = compiled?.stack.units.findIndex((one) => one.id === place.unitId) ?? -1;
    const path = ['arrays', array.id, 'places'];
    const inputs =
      compiled === undefined || unit < 0
        ? unknownAt(path)
        : compiled.type.known
          ? field(compiled.type.value.pvInputs, 'types', compiled.type.value.id, 'pvInputs')
          : compiled.type;
    return {
      array,
      place,
      moduleType,
      inputs,
      label: `${array.name} on input ${place.input} of unit ${unit + 1}`,
    };
  });
}

/** Every string place of the DC-coupled arrays. */
export const allStrings = (installation: Installation): StringsAt[] =>
  installation.arrays
    .filter(({ array }) => array.coupling === 'dc')
    .flatMap((one) => stringsOf(one, installation));

/** Everything a string's voltages follow from. */
export function knownString(one: StringsAt, site: Site) {
  const path = ['arrays', one.array.id];
  const given = all({
    type: one.moduleType,
    count: field(one.array.modulesPerString, ...path, 'modulesPerString'),
    inputs: one.inputs,
    lowestC: field(site.lowestC, 'site', 'lowestC'),
    highestC: field(site.highestC, 'site', 'highestC'),
  });
  if (!given.known) return given;
  const { type, count, lowestC, highestC } = given.value;
  return known({ ...given.value, volts: stringVolts(type, count, lowestC, highestC) });
}
