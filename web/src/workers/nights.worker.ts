import {
  choiceCount,
  compile,
  type Design,
  type Driver,
  type NightColumns,
  nightColumns,
  nightsRun,
  type NightsRun,
  type NightsSummary,
  PATTERNS,
  type Plant,
  plantsOf,
  playChoice,
  playNights,
  type RehearsalAsk,
  RURAL,
  SAMPLE_TYPES,
  typedPattern,
} from '@bastion/core';
import { expose, transfer } from 'comlink';

/** What is asked for, as it travels: a pattern by its name, or hours that were typed. */
export interface NightsAsk extends Pick<RehearsalAsk, 'seed' | 'nights' | 'fromFull'> {
  readonly patternId: string;
  readonly typedHours: readonly number[];
}

export interface PlayedNights {
  readonly summary: NightsSummary;
  readonly drivers: readonly Driver[];
}

let ready: { readonly plant: Plant; readonly run: NightsRun } | undefined;

/** The pattern that an ask names, or the hours it has typed. */
const patternOf = ({ patternId, typedHours }: NightsAsk) =>
  patternId === 'typed' && typedHours.length > 0
    ? typedPattern(typedHours)
    : (PATTERNS.find(({ id }) => id === patternId) ?? RURAL);

const work = {
  /** Makes a set ready to be played; answers how many choices it has, undefined where it cannot be played. */
  prepare: (design: Design, stackId: string, asked: NightsAsk): number | undefined => {
    const installation = compile(design, SAMPLE_TYPES);
    const found = plantsOf(installation).find(({ compiled }) => compiled.stack.id === stackId);
    if (found?.plant.known !== true) return undefined;
    const plant = found.plant.value;
    ready = { plant, run: nightsRun(plant, installation, { ...asked, pattern: patternOf(asked) }) };
    return choiceCount(ready.plant, ready.run);
  },
  /** Plays the nights from one number to another; their columns are handed over. */
  play: (from: number, to: number): NightColumns | undefined => {
    if (ready === undefined) return undefined;
    const columns = nightColumns(ready.plant, to - from);
    playNights(ready.plant, ready.run, columns, from, to, from);
    const { boardMinutes, hours, ...own } = columns;
    const arrays: readonly (Float64Array | Uint32Array)[] = [
      ...Object.values(own),
      ...boardMinutes,
      hours.soc,
      hours.dark,
    ];
    return transfer(
      columns,
      arrays.map(({ buffer }) => buffer),
    );
  },
  /** Plays all nights with one choice made otherwise. */
  choose: (index: number): Pick<Driver, 'title' | 'summary'> | undefined =>
    ready === undefined ? undefined : playChoice(ready.plant, ready.run, index),
};
export type NightsWork = typeof work;

expose(work);
