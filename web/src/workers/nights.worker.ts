import {
  compile,
  type Design,
  type Driver,
  driversOf,
  firstNights,
  nightColumns,
  nightsRun,
  type NightsSummary,
  PATTERNS,
  plantsOf,
  playNights,
  type RehearsalAsk,
  RURAL,
  SAMPLE_TYPES,
  summarise,
  typedPattern,
} from '@bastion/core';
import { expose } from 'comlink';

/** What is asked for, as it travels: a pattern by its name, or hours that were typed. */
export interface NightsAsk extends Pick<RehearsalAsk, 'seed' | 'nights' | 'fromFull'> {
  readonly patternId: string;
  readonly typedHours: readonly number[];
}

export interface PlayedNights {
  readonly summary: NightsSummary;
  readonly drivers: readonly Driver[];
}

/** Nights that are played before the first picture, and between two looks at how far it has come. */
const FIRST = 200;
const CHUNK = 1000;

const work = {
  /** Plays the nights of a set, telling on the way what they come to so far. Undefined where the set cannot be played. */
  play: (
    design: Design,
    stackId: string,
    asked: NightsAsk,
    onProgress: (share: number, summary: NightsSummary) => void,
  ): PlayedNights | undefined => {
    const installation = compile(design, SAMPLE_TYPES);
    const found = plantsOf(installation).find(({ compiled }) => compiled.stack.id === stackId);
    if (found?.plant.known !== true) return undefined;
    const plant = found.plant.value;
    const pattern =
      asked.patternId === 'typed' && asked.typedHours.length > 0
        ? typedPattern(asked.typedHours)
        : (PATTERNS.find(({ id }) => id === asked.patternId) ?? RURAL);
    const run = nightsRun(plant, installation, { ...asked, pattern });
    const columns = nightColumns(plant, run.nights);
    for (let from = 0, to = Math.min(FIRST, run.nights); from < run.nights;) {
      playNights(plant, run, columns, from, to);
      onProgress(to / run.nights, summarise(plant, run, firstNights(columns, to)));
      from = to;
      to = Math.min(to + CHUNK, run.nights);
    }
    const summary = summarise(plant, run, columns);
    return { summary, drivers: driversOf(plant, run, summary) };
  },
};
export type NightsWork = typeof work;

expose(work);
