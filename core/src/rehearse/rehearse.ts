import type { CompiledStack, Installation } from '../installation/installation.ts';
import { type Known, known } from '../values/known.ts';
import { chanceOf } from './chance.ts';
import type { NightsRun } from './nights.ts';
import type { OutageRun } from './outageRun.ts';
import { LONGEST_MINUTES, type OutagePattern, RURAL } from './patterns.ts';
import { type Plant, plantOf } from './plant.ts';
import { MINUTES_OF_DAY, SEASONS } from './year.ts';

/** How a rehearsal is asked for, in the units of people. */
export interface RehearsalAsk {
  readonly seed?: number | undefined;
  readonly startH?: number | undefined;
  readonly hours?: number | undefined;
  /** 1 to 12. */
  readonly month?: number | undefined;
  /** Share of a clear sky. */
  readonly clearness?: number | undefined;
  readonly fromFull?: boolean | undefined;
  /** What fails, and when; of a set that is named, or of any. */
  readonly lose?:
    | {
        readonly what: 'unit' | 'module';
        readonly atH: number;
        readonly unitId?: string | undefined;
        readonly stackId?: string | undefined;
      }
    | undefined;
  /** circuit/item that starts, beside the transfer. */
  readonly motor?: string | undefined;
  readonly nights?: number | undefined;
  readonly pattern?: OutagePattern | undefined;
}

/** Until somebody stands at a set that is started by hand, minutes. */
export const HAND_MINUTES = 30;
export const DEFAULT_NIGHTS = 10_000;
export const MOST_NIGHTS = 100_000;
const DEFAULT_HOURS = 24;
const DAYS_OF_MONTH = 30.4;

/** What is wrong with a question, as a sentence; undefined where it can be played. */
export function askProblem(ask: RehearsalAsk): string | undefined {
  const { hours, nights, startH, month, clearness } = ask;
  const isWithin = (value: number | undefined, least: number, most: number): boolean =>
    value === undefined || (value >= least && value <= most);
  if (!isWithin(hours, 1 / 60, LONGEST_MINUTES / 60))
    return `An outage of ${hours ?? ''} h cannot be played: from one minute to ${LONGEST_MINUTES / 60} h.`;
  if (!isWithin(nights, 10, MOST_NIGHTS))
    return `${nights ?? ''} nights cannot be played: from 10 to ${MOST_NIGHTS}.`;
  if (!isWithin(startH, 0, 23.999)) return 'The hour of the start lies between 0 and 24.';
  if (!isWithin(month, 1, 12)) return 'The month lies between 1 and 12.';
  if (!isWithin(clearness, 0, 1)) return 'The share of a clear sky lies between 0 and 1.';
  return undefined;
}

const engineOf = (plant: Plant): Pick<OutageRun, 'generatorFromSoc' | 'generatorToSoc' | 'handMinutes'> => ({
  generatorFromSoc: plant.callLevels.fromSoc,
  generatorToSoc: plant.callLevels.toSoc,
  handMinutes: HAND_MINUTES,
});

/** What fails in this set: nothing where a unit or a set is named that is not this one's. */
function lostIn({ stackId, limits }: Plant, lose: RehearsalAsk['lose']): OutageRun['lose'] {
  if (lose === undefined || (lose.stackId ?? stackId) !== stackId) return undefined;
  const isOther = limits?.without.every(({ unitId }) => unitId !== lose.unitId) === true;
  if (lose.unitId !== undefined && isOther) return undefined;
  return { what: lose.what, minute: Math.floor(lose.atH * 60), unitId: lose.unitId };
}

/** One outage as it is asked for; by default from the reserve, at the hour the site looks at, in December, under a half-clear sky. */
export function outageRun(plant: Plant, { site }: Pick<Installation, 'site'>, ask: RehearsalAsk): OutageRun {
  const month = ask.month ?? ((site.latitudeDeg ?? 1) < 0 ? 6 : 12);
  const season = Math.min(SEASONS - 1, Math.floor(((month - 0.5) * DAYS_OF_MONTH) / 5));
  return {
    season,
    startMinute: Math.floor((ask.startH ?? site.outageStartH ?? 18) * 60) % MINUTES_OF_DAY,
    minutes: Math.round((ask.hours ?? site.targetAutonomyH ?? DEFAULT_HOURS) * 60),
    startSoc: ask.fromFull === true ? 1 : plant.reserveSoc,
    clearness: [ask.clearness ?? 0.5],
    loadFactor: 1,
    chance: ask.seed === undefined ? undefined : chanceOf(ask.seed, 0),
    ...engineOf(plant),
    lose: lostIn(plant, ask.lose),
  };
}

/** Many nights as they are asked for. */
export function nightsRun(plant: Plant, { site }: Pick<Installation, 'site'>, ask: RehearsalAsk): NightsRun {
  return {
    seed: ask.seed ?? 1,
    nights: ask.nights ?? DEFAULT_NIGHTS,
    pattern: ask.pattern ?? RURAL,
    startSoc: ask.fromFull === true ? 1 : plant.reserveSoc,
    targetMinutes: site.targetAutonomyH === undefined ? undefined : site.targetAutonomyH * 60,
    ...engineOf(plant),
  };
}

/** A set with what its minutes are played from, or what is missing of that. */
export interface Rehearsed {
  readonly compiled: CompiledStack;
  readonly plant: Known<Plant>;
}

/** The sets of an installation that can be rehearsed; those that make no island are left out. */
export const plantsOf = (installation: Installation): readonly Rehearsed[] =>
  installation.stacks.flatMap((compiled): Rehearsed[] => {
    const plant = plantOf(installation, compiled);
    if (!plant.known) return [{ compiled, plant }];
    return plant.value === 'none' ? [] : [{ compiled, plant: known(plant.value) }];
  });
