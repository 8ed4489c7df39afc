import { generatorLines } from '../../installation/generatorLines.ts';
import { generatorBoard } from '../loads/boards.ts';
import { reachedAverageW } from './reached.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { CompiledGenerator, CompiledStack } from '../../installation/installation.ts';

/** What a generator burns while it carries the average load of the lines it reaches, without charging. */
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
  const given = all({ type: one.type, board: generatorBoard(compiled), supply: compiled.supply });
  if (!given.known) return given;
  const { type, board, supply } = given.value;
  const reached = generatorLines(generator, type, supply);
  if (!reached.known) return reached;
  const figures = all({
    idle: field(type.fuelIdleLPerH, 'types', type.id, 'fuelIdleLPerH'),
    perKwh: field(type.fuelLPerKwh, 'types', type.id, 'fuelLPerKwh'),
  });
  if (!figures.known) return figures;
  const averageW = reachedAverageW(board, reached.value);
  if (averageW.missing.length > 0) return unknownAt(...averageW.missing);
  const litresPerHour = figures.value.idle + (figures.value.perKwh * averageW.knownPart) / 1000;
  return known({
    litresPerHour,
    litresPerDay: litresPerHour * 24,
    lastsH:
      generator.fuelL === undefined || litresPerHour === 0 ? undefined : generator.fuelL / litresPerHour,
  });
}
