import type { SetLimits } from './limits.ts';
import type { Plant } from './plant.ts';
import type { LineDay, PlantBoard } from './plantBoard.ts';
import { MINUTES_OF_DAY } from './year.ts';

/** A unit that has failed; undefined while all are there. */
export type Gone = { readonly unitId: string | undefined } | undefined;

/**
 * The limits of a set, or what is left of them. Without its lines one unit is worth its part of the whole; a unit that nobody names is
 * the first.
 */
export function limitsOf({ limits, ratedW, unitCount }: Plant, gone: Gone): SetLimits {
  if (limits === undefined)
    return {
      totalW: gone === undefined ? ratedW : (ratedW * (unitCount - 1)) / unitCount,
      totalVa: 0,
      lineVa: [],
      lineW: [],
    };
  if (gone === undefined) return limits;
  return limits.without.find(({ unitId }) => unitId === gone.unitId) ?? limits.without[0] ?? limits;
}

const dayOf = ({ seasonW, minuteW }: Pick<LitBoard, 'minuteW' | 'seasonW'>, season: number): Float64Array =>
  seasonW?.[season] ?? minuteW;

/** How far something is asked more than it gives: 1 at its limit. A line that was never fed is told elsewhere. */
const shareOf = (asked: number, limit: number): number => (limit > 0 ? asked / limit : 0);

/** What is asked of a set by minute of the day, as shares of what it carries for long. */
export interface Strain {
  /** The largest of all. */
  readonly most: Float64Array;
  /** Line by line; empty where no line is looked at by itself. */
  readonly lines: readonly Float64Array[];
  /** What is fed, W. */
  readonly loadW: Float64Array;
  /** While a generator runs: the largest share of what it and, on lines that it does not reach, the inverters give. */
  readonly withEngine: Float64Array;
  /** What of the load lies on the lines that it reaches, W. */
  readonly engineW: Float64Array;
}

/** The load of one line, W and var. */
function lineLoad(boards: readonly PlantBoard[], season: number, line: number): LineDay {
  const re = new Float64Array(MINUTES_OF_DAY);
  const im = new Float64Array(MINUTES_OF_DAY);
  for (const board of boards) {
    const own = board.lines?.[line];
    if (own === undefined) continue;
    const day = dayOf(board, season);
    for (let at = 0; at < MINUTES_OF_DAY; at += 1) {
      const planned = board.minuteW[at] ?? 0;
      if (planned === 0) continue;
      // What a meter has measured lies on the lines as the items do.
      const factor = (day[at] ?? 0) / planned;
      re[at] = (re[at] ?? 0) + (own.re[at] ?? 0) * factor;
      im[at] = (im[at] ?? 0) + (own.im[at] ?? 0) * factor;
    }
  }
  return { re, im };
}

/** √(P² + Q²), by operations that every machine does alike. */
const sizeOf = (re: number, im: number): number => Math.sqrt(re * re + im * im);

/**
 * What a running generator is asked for: √(P² + Q²) against its alternator on each line that it reaches, P against its engine in all. On
 * the others the inverters go on. Where no line is looked at by itself it carries everything.
 */
function engineStrain(
  { generator }: Plant,
  loads: readonly LineDay[],
  { lines, loadW }: Pick<Strain, 'lines' | 'loadW'>,
): Pick<Strain, 'withEngine' | 'engineW'> {
  if (generator === undefined) return { withEngine: loadW, engineW: loadW };
  const { lineVa, mostW } = generator;
  const isReached = (line: number): boolean => (lineVa[line] ?? 0) > 0;
  const isByLine = loads.length > 0 && lineVa.length === loads.length;
  const engineW =
    isByLine && !loads.every((_, line) => isReached(line))
      ? loadW.map((watts, at) => {
          const of = (is: (line: number) => boolean): number =>
            loads.reduce((sum, { re }, line) => sum + (is(line) ? (re[at] ?? 0) : 0), 0);
          const whole = of(() => true);
          return whole > 0 ? (watts * of(isReached)) / whole : watts;
        })
      : loadW;
  const withEngine = engineW.map((watts, at) => {
    const whole = mostW > 0 ? watts / mostW : Infinity;
    if (!isByLine) return whole;
    return loads.reduce((top, { re, im }, line) => {
      const share = isReached(line)
        ? shareOf(sizeOf(re[at] ?? 0, im[at] ?? 0), lineVa[line] ?? 0)
        : (lines[line]?.[at] ?? 0);
      return Math.max(top, share);
    }, whole);
  });
  return { withEngine, engineW };
}

/** A set with some of its boards on, its lines one by one and all together. */
function makeStrain(plant: Plant, season: number, live: number, gone: Gone): Strain {
  const boards = plant.boards.filter((_, index) => (live & (1 << index)) !== 0);
  const fed =
    gone === undefined ? boards : litBoards(plant, gone).filter((_, index) => (live & (1 << index)) !== 0);
  const limits = limitsOf(plant, gone);
  const loads = limits.lineVa.map((_, line) => lineLoad(boards, season, line));
  const fedLoads = loads.filter((_, line) => (limits.lineVa[line] ?? 0) > 0);
  const lines = loads.map(({ re, im }, line) =>
    re.map((watts, at) =>
      Math.max(
        shareOf(sizeOf(watts, im[at] ?? 0), limits.lineVa[line] ?? 0),
        shareOf(watts, limits.lineW[line] ?? 0),
      ),
    ),
  );
  const loadW = Float64Array.from({ length: MINUTES_OF_DAY }, (_, at) =>
    fed.reduce((sum, board) => sum + (dayOf(board, season)[at] ?? 0), 0),
  );
  const most = loadW.map((watts, at) => {
    const sum = (of: keyof LineDay): number => fedLoads.reduce((all, load) => all + (load[of][at] ?? 0), 0);
    const inWatts = limits.totalW > 0 ? watts / limits.totalW : Infinity;
    // All lines together matter beside each where a set shares what it has among them.
    const whole = Math.max(inWatts, shareOf(sizeOf(sum('re'), sum('im')), limits.totalVa));
    return lines.reduce((top, line) => Math.max(top, line[at] ?? 0), whole);
  });
  return { most, lines, loadW, ...engineStrain(plant, loads, { lines, loadW }) };
}

const made = new WeakMap<Plant, Map<string, Strain>>();

/** The same, each made once: there are few combinations of boards, and many minutes. */
export function strainBy(plant: Plant, season: number, live: number, gone: Gone): Strain {
  const tables = made.get(plant) ?? new Map<string, Strain>();
  made.set(plant, tables);
  const isMeasured = plant.boards.some(({ seasonW }) => seasonW !== undefined);
  const key = `${isMeasured ? season : 0}/${live}/${gone === undefined ? '' : `-${gone.unitId ?? ''}`}`;
  const strain = tables.get(key) ?? makeStrain(plant, season, live, gone);
  tables.set(key, strain);
  return strain;
}

/** Lines that go dark with a unit: fed before, and by nobody now. */
const darkened = (plant: Plant, gone: Gone): readonly boolean[] =>
  plant.limits === undefined
    ? []
    : limitsOf(plant, gone).lineVa.map((va, line) => va === 0 && (plant.limits?.lineVa[line] ?? 0) > 0);

/** A board with what is left of its load once some lines are dark. */
export interface LitBoard {
  readonly minuteW: Float64Array;
  readonly seasonW?: readonly Float64Array[] | undefined;
  /** The part of its energy that is still fed. */
  readonly share: number;
}

/** The boards of a set once a unit is gone: what hangs on a line that has gone dark is fed no more. */
export function litBoards(plant: Plant, gone: Gone): readonly LitBoard[] {
  const dark = darkened(plant, gone);
  return plant.boards.map(({ minuteW, seasonW, lines = [] }) => {
    const left = minuteW.map((watts, at) => {
      const lost = lines.reduce((sum, { re }, line) => sum + (dark[line] === true ? (re[at] ?? 0) : 0), 0);
      const whole = lines.reduce((sum, { re }) => sum + (re[at] ?? 0), 0);
      return whole > 0 ? 1 - lost / whole : watts > 0 && dark.every((one) => one) && dark.length > 0 ? 0 : 1;
    });
    const lit = (day: Float64Array): Float64Array => day.map((watts, at) => watts * (left[at] ?? 1));
    const sum = (day: Float64Array): number => day.reduce((all, one) => all + one, 0);
    const litDay = lit(minuteW);
    return {
      minuteW: litDay,
      seasonW: seasonW?.map(lit),
      share: sum(minuteW) > 0 ? sum(litDay) / sum(minuteW) : 1,
    };
  });
}

/** The part of each board that is still fed once a unit is gone. */
export const fedShares = (plant: Plant, gone: Gone): readonly number[] =>
  litBoards(plant, gone).map(({ share }) => share);
