import { isOwnBank } from '../installation/ownBank.ts';
import { isPerLine, unitLines } from '../installation/unitLines.ts';
import type { CompiledStack } from '../installation/installation.ts';
import type { Plant } from './plant.ts';
import type { PlantBoard } from './plantBoard.ts';

/** One of several banks that are spent by themselves, with the set as it sees it. */
export interface BankApart {
  readonly label: string;
  readonly plant: Plant;
}

/** A board as one unit of a line sees it: the load of that line, shared by the units on it. */
function onLine({ minuteW, seasonW, lines, ...board }: PlantBoard, line: number, scale: number): PlantBoard {
  const own = lines?.[line]?.re ?? new Float64Array(minuteW.length);
  const day = own.map((watts) => watts * scale);
  return {
    ...board,
    minuteW: day,
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
  const banks = supply.value.lines.flatMap((name, line): BankApart[] => {
    const units = [...fed.value].filter(([, lines]) => lines.length === 1 && lines[0] === line);
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
