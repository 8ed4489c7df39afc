import { generatorBoard } from '../loads/boards.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { CompiledGenerator, CompiledStack } from '../../installation/installation.ts';

/** What a generator burns while it carries the average load alone, without charging. */
export interface FuelUse {
  readonly litresPerHour: number;
  readonly litresPerDay: number;
  /** How long the fuel at hand lasts; undefined while that is not stated. */
  readonly lastsH: number | undefined;
}

/** Litres an hour = idle + (L per kWh) · average kW, with figures of the type. */
export function fuelUse(one: CompiledGenerator, compiled: CompiledStack | undefined): Known<FuelUse> {
  const { generator } = one;
  if (compiled === undefined) return unknownAt(['generators', generator.id, 'stackId']);
  const given = all({ type: one.type, board: generatorBoard(compiled) });
  if (!given.known) return given;
  const { type, board } = given.value;
  const figures = all({
    idle: field(type.fuelIdleLPerH, 'types', type.id, 'fuelIdleLPerH'),
    perKwh: field(type.fuelLPerKwh, 'types', type.id, 'fuelLPerKwh'),
  });
  if (!figures.known) return figures;
  if (board.averageW.missing.length > 0) return unknownAt(...board.averageW.missing);
  const litresPerHour = figures.value.idle + (figures.value.perKwh * board.averageW.knownPart) / 1000;
  return known({
    litresPerHour,
    litresPerDay: litresPerHour * 24,
    lastsH:
      generator.fuelL === undefined || litresPerHour === 0 ? undefined : generator.fuelL / litresPerHour,
  });
}
