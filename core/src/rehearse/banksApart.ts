import { isOwnBank } from '../installation/ownBank.ts';
import { isPerLine, unitLines } from '../installation/unitLines.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { Plant, PlantGenerator } from './plant.ts';
import type { PlantBoard } from './plantBoard.ts';

/** One of several banks that are spent by themselves, with the set as it sees it. */
export interface BankApart {
  readonly label: string;
  readonly plant: Plant;
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

/**
 * The banks of a set in which each unit has its own and feeds one line: units of a line share its load, so that their banks are spent alike,
 * and those of another line otherwise. None where all banks are spent alike, or there is one for all.
 *
 * @param plant as the hardest-working unit sees it: `part` of everything.
 */
export function banksApart(plant: Plant, compiled: CompiledStack): readonly BankApart[] {
  const { stack, supply } = compiled;
  const { limits, part } = plant;
  if (!isOwnBank(stack) || stack.arrangement === undefined || !isPerLine(stack.arrangement)) return [];
  if (!supply.known || limits === undefined) return [];
  const fed = unitLines(stack, stack.arrangement, supply.value);
  if (!fed.known) return [];
  const unitsOn = supply.value.lines.map((_, line) =>
    [...fed.value].filter(([, lines]) => lines.length === 1 && lines[0] === line),
  );
  const counts = unitsOn.map(({ length }) => length);
  const banks = supply.value.lines.flatMap((name, line): BankApart[] => {
    const units = unitsOn[line] ?? [];
    const count = units.length;
    if (count === 0) return [];
    // Lines and limits of the plant are those of the set times its part.
    const scale = 1 / (part * count);
    const lineVa = (limits.lineVa[line] ?? 0) * scale;
    const lineW = (limits.lineW[line] ?? 0) * scale;
    const boards = plant.boards.map((board) => onLine(board, line, scale));
    const own: Plant = {
      ...plant,
      boards,
      ratedW: lineW,
      generator: engineOn(plant, line, scale, counts),
      part: 1 / count,
      limits: {
        names: [name],
        totalW: lineW,
        totalVa: lineVa,
        lineVa: [lineVa],
        lineW: [lineW],
        without: [],
      },
    };
    const numbers = units.map(([id]) => stack.units.findIndex((unit) => unit.id === id) + 1);
    return [
      {
        label: `${name}: ${count === 1 ? `unit ${numbers.join('')}` : `units ${numbers.join(', ')}, each`}`,
        plant: own,
      },
    ];
  });
  return banks.length > 1 ? banks : [];
}
