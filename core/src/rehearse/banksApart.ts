import { isOwnBank } from '../installation/ownBank.ts';
import { isPerLine, unitLines } from '../installation/unitLines.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { PlantLimits } from './limits.ts';
import type { Plant, PlantGenerator } from './plant.ts';
import type { PlantBoard } from './plantBoard.ts';

/** One of several banks that are spent by themselves, with the set as it sees it. */
export interface BankApart {
  readonly label: string;
  readonly plant: Plant;
  /** The units on the line, each with such a bank. */
  readonly unitIds: readonly string[];
  /** The same once one of them has failed: the others share the load of the line. Undefined where it was the only one. */
  readonly withoutOne: Plant | undefined;
}

/** A board as one unit of a line sees it: the load of that line, shared by the units on it. */
function onLine({ minuteW, seasonW, lines, ...board }: PlantBoard, line: number, scale: number): PlantBoard {
  const none = new Float64Array(minuteW.length);
  const day = (lines?.[line]?.re ?? none).map((watts) => watts * scale);
  return {
    ...board,
    minuteW: day,
    lines: [{ re: day, im: (lines?.[line]?.im ?? none).map((vars) => vars * scale) }],
    // What a meter has measured lies on the lines as the items do.
    ...(seasonW === undefined
      ? {}
      : {
          seasonW: seasonW.map((measured) =>
            day.map((watts, at) => {
              const planned = minuteW[at] ?? 0;
              return planned > 0 ? (watts * (measured[at] ?? 0)) / planned : 0;
            }),
          ),
        }),
  };
}

/**
 * A generator as one unit of a line sees it: its part of the alternator on that line, and of the engine that the units on all lines which
 * it reaches share. None on a line that it does not reach.
 */
function engineOn(
  { generator, unitCount }: Plant,
  line: number,
  scale: number,
  unitsOn: readonly number[],
): PlantGenerator | undefined {
  const lineVa = generator?.lineVa[line] ?? 0;
  if (generator === undefined || lineVa === 0) return undefined;
  const sharing = unitsOn.reduce((sum, units, at) => sum + ((generator.lineVa[at] ?? 0) > 0 ? units : 0), 0);
  const more = unitCount / sharing;
  return {
    ...generator,
    mostW: generator.mostW * more,
    targetW: generator.targetW * more,
    chargeW: generator.chargeW * more,
    lPerKwh: generator.lPerKwh / more,
    lineVa: [lineVa * scale],
  };
}

/** The units on each line of a set in which every unit feeds one and has a bank of its own; none of another set. */
function unitsByLine({ stack, supply }: CompiledStack): readonly (readonly string[])[] {
  if (!isOwnBank(stack) || stack.arrangement === undefined || !isPerLine(stack.arrangement)) return [];
  if (!supply.known) return [];
  const fed = unitLines(stack, stack.arrangement, supply.value);
  if (!fed.known) return [];
  return supply.value.lines.map((_, line) =>
    [...fed.value].filter(([, lines]) => lines.length === 1 && lines[0] === line).map(([id]) => id),
  );
}

/** The set as one unit of a line sees it, on which so many share its load. */
function bankOn(plant: Plant, limits: PlantLimits, line: number, counts: readonly number[]): Plant {
  const count = counts[line] ?? 1;
  // Lines and limits of the plant are those of the set times its part.
  const scale = 1 / (plant.part * count);
  const lineVa = (limits.lineVa[line] ?? 0) * scale;
  const lineW = (limits.lineW[line] ?? 0) * scale;
  return {
    ...plant,
    boards: plant.boards.map((board) => onLine(board, line, scale)),
    ratedW: lineW,
    generator: engineOn(plant, line, scale, counts),
    part: 1 / count,
    limits: {
      names: [limits.names[line] ?? ''],
      totalW: lineW,
      totalVa: lineVa,
      lineVa: [lineVa],
      lineW: [lineW],
      without: [],
    },
  };
}

/** What a set carries on a line with one unit less there. */
function limitsWithout(limits: PlantLimits, unitId: string | undefined): PlantLimits {
  const left = limits.without.find((one) => one.unitId === unitId);
  return left === undefined ? limits : { ...limits, ...left };
}

/**
 * The banks of a set in which each unit has its own and feeds one line: units of a line share its load, so that their banks are spent alike,
 * and those of another line otherwise. None where all banks are spent alike, or there is one for all.
 *
 * @param plant as the hardest-working unit sees it: `part` of everything.
 */
export function banksApart(plant: Plant, compiled: CompiledStack): readonly BankApart[] {
  const { limits } = plant;
  if (limits === undefined) return [];
  const byLine = unitsByLine(compiled);
  const counts = byLine.map(({ length }) => length);
  const banks = byLine.flatMap((unitIds, line): BankApart[] => {
    const count = unitIds.length;
    if (count === 0) return [];
    const numbers = unitIds.map((id) => compiled.stack.units.findIndex((unit) => unit.id === id) + 1);
    const fewer = counts.map((one, at) => (at === line ? one - 1 : one));
    const name = limits.names[line] ?? '';
    const own = bankOn(plant, limits, line, counts);
    const left = bankOn(plant, limitsWithout(limits, unitIds[0]), line, fewer);
    return [
      {
        label: `${name}: ${count === 1 ? `unit ${numbers.join('')}` : `units ${numbers.join(', ')}, each`}`,
        plant: own,
        unitIds,
        // What a unit charges with is its own setting, however many there are.
        withoutOne:
          count === 1
            ? undefined
            : {
                ...left,
                generator: left.generator && {
                  ...left.generator,
                  chargeW: own.generator?.chargeW ?? left.generator.chargeW,
                },
              },
      },
    ];
  });
  return banks.length > 1 ? banks : [];
}
