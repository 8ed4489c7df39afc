import { METER_SEASONS as YEAR, type MeterSummary, seasonOf } from '../installation/facts.ts';
import type { CompiledStack, Installation } from '../installation/installation.ts';
import type { PlantBoard } from './plantBoard.ts';
import { SEASONS } from './year.ts';

const MINUTES_OF_HOUR = 60;
const DAYS_OF_SEASON = 5;
const DAYS_OF_MONTH = 365 / 12;

/** Boards with the days that a meter has measured, and in a sentence where their load is from. */
export interface MeasuredBoards {
  readonly boards: readonly PlantBoard[];
  readonly loadFrom: string;
}

/** The calendar month, counted from 0, in which a stretch of five days lies. */
const monthOf = (season: number): number => Math.floor((season * DAYS_OF_SEASON + 3) / DAYS_OF_MONTH) % 12;

const meanOf = (minuteW: Float64Array, hour: number): number =>
  minuteW
    .subarray(hour * MINUTES_OF_HOUR, (hour + 1) * MINUTES_OF_HOUR)
    .reduce((sum, watts) => sum + watts, 0) / MINUTES_OF_HOUR;

/**
 * The boards of a meter on a day as it was measured: hour by hour the minutes of their items are raised or lowered to its mean; where the
 * items have nothing, the first board has it all. An hour without a reading stays as the items have it.
 */
function measuredDay(
  boards: readonly PlantBoard[],
  hourW: readonly (number | null)[],
  part: number,
): Float64Array[] {
  const days = boards.map(({ minuteW }) => Float64Array.from(minuteW));
  hourW.forEach((mean, hour) => {
    if (mean === null) return;
    const wantedW = mean * part;
    const planned = boards.reduce((sum, { minuteW }) => sum + meanOf(minuteW, hour), 0);
    days.forEach((day, board) => {
      for (let at = hour * MINUTES_OF_HOUR; at < (hour + 1) * MINUTES_OF_HOUR; at += 1)
        day[at] = planned > 0 ? ((day[at] ?? 0) * wantedW) / planned : board === 0 ? wantedW : 0;
    });
  });
  return days;
}

/** The boards of one meter with their days by season. */
function withMeter(
  boards: readonly PlantBoard[],
  { seasons }: MeterSummary,
  southern: boolean,
  part: number,
): PlantBoard[] {
  const days = new Map(seasons.map(({ season, hourW }) => [season, measuredDay(boards, hourW, part)]));
  return boards.map((board, at) => ({
    ...board,
    seasonW: Array.from(
      { length: SEASONS },
      (_, season) => days.get(seasonOf(monthOf(season), southern))?.[at] ?? board.minuteW,
    ),
  }));
}

/** Where load is from, with the seasons of which a meter has nothing. */
const measuredWords = (meters: readonly MeterSummary[]): string =>
  meters
    .map(({ name, seasons }) => {
      const missing = YEAR.filter((one) => !seasons.some(({ season }) => season === one));
      return `Load as measured: ${name}${missing.length === 0 ? '' : `, but in ${missing.join(' and ')} by the hours of its items`}.`;
    })
    .join(' ');

/**
 * Load from meter data where there is some: of a board by itself, or of the whole building where all of it is backed up by this set.
 *
 * @param part share of the load that the bank which is played sees.
 */
export function measuredBoards(
  { circuits, meters, site }: Installation,
  compiled: CompiledStack,
  boards: readonly PlantBoard[],
  part: number,
): MeasuredBoards {
  const southern = (site.latitudeDeg ?? 1) < 0;
  const own = new Set(boards.map(({ partitionId }) => partitionId));
  const ofBoards = meters.filter(({ scope }) => own.has(scope));
  if (ofBoards.length > 0)
    return {
      boards: boards.map((board) => {
        const meter = ofBoards.find(({ scope }) => scope === board.partitionId);
        return meter === undefined ? board : (withMeter([board], meter, southern, part)[0] ?? board);
      }),
      loadFrom: `${measuredWords(ofBoards)} Other boards go by the hours of their items.`,
    };
  const building = meters.find(({ scope }) => scope === 'building');
  if (building === undefined)
    return { boards, loadFrom: 'Load by the hours of its items: no meter has measured it.' };
  const carried = new Set(compiled.circuits.map(({ id }) => id));
  return circuits.every(({ id, partitionId }) => carried.has(id) && own.has(partitionId ?? ''))
    ? {
        boards: withMeter(boards, building, southern, part),
        loadFrom: measuredWords([building]),
      }
    : {
        boards,
        loadFrom: `Load by the hours of its items: ${building.name} has measured more than is backed up here.`,
      };
}
