import { nightColumns, type NightsRun, type NightsSummary, playNights, summarise } from './nights.ts';
import type { Plant } from './plant.ts';

/** A choice that could be made otherwise, and what the same nights then come to. */
export interface Driver {
  readonly title: string;
  readonly summary: NightsSummary;
  /** Change of the share of outages that are carried to their end. */
  readonly gain: number;
}

interface Choice {
  readonly title: string;
  readonly plant: Plant;
  readonly run: NightsRun;
}

/** How much more reserve, and how much larger a set, are tried. */
const MORE_RESERVE = 0.2;
const LARGER_SET = 1.5;

/** One module more: capacity and limits grow with it. */
function oneModuleMore(plant: Plant): Plant {
  const more = (plant.moduleCount + 1) / plant.moduleCount;
  return {
    ...plant,
    moduleCount: plant.moduleCount + 1,
    fullWh: plant.fullWh * more,
    mostDischargeW: plant.mostDischargeW * more,
    mostChargeW: plant.mostChargeW * more,
  };
}

function choicesOf(plant: Plant, run: NightsRun): Choice[] {
  const { generator } = plant;
  const staying = plant.boards.filter(
    ({ shedBelowSoc, onlyWithGenerator }) => shedBelowSoc === undefined && !onlyWithGenerator,
  );
  const last = staying.length > 1 ? staying.at(-1) : undefined;
  const reserve = Math.min(1, run.startSoc + MORE_RESERVE);
  return [
    { title: 'One module more', plant: oneModuleMore(plant), run },
    ...(reserve > run.startSoc
      ? [{ title: `A reserve of ${Math.round(reserve * 100)} %`, plant, run: { ...run, startSoc: reserve } }]
      : []),
    ...(last === undefined
      ? []
      : [
          {
            title: `${last.name} as a shed stage below 50 %`,
            plant: {
              ...plant,
              boards: plant.boards.map((board) => (board === last ? { ...board, shedBelowSoc: 0.5 } : board)),
            },
            run,
          },
        ]),
    ...(generator === undefined
      ? []
      : [
          {
            title: 'A generator half as large again',
            plant: {
              ...plant,
              generator: {
                ...generator,
                mostW: generator.mostW * LARGER_SET,
                lineVa: generator.lineVa.map((va) => va * LARGER_SET),
                targetW: generator.targetW * LARGER_SET,
                chargeW: generator.chargeW * LARGER_SET,
              },
            },
            run,
          },
        ]),
  ];
}

/** How many choices there are to be played; each can be played by itself, on any thread. */
export const choiceCount = (plant: Plant, run: NightsRun): number => choicesOf(plant, run).length;

/** What the same nights come to with one of the choices made otherwise; undefined for a number that there is not. */
export function playChoice(
  plant: Plant,
  run: NightsRun,
  index: number,
): Pick<Driver, 'title' | 'summary'> | undefined {
  const choice = choicesOf(plant, run)[index];
  if (choice === undefined) return undefined;
  const columns = nightColumns(choice.plant, choice.run.nights);
  playNights(choice.plant, choice.run, columns, 0, choice.run.nights);
  return { title: choice.title, summary: summarise(choice.plant, choice.run, columns) };
}

/** Choices that have been played, the one that moves the answer most first. */
export const rankDrivers = (
  played: readonly Pick<Driver, 'title' | 'summary'>[],
  now: NightsSummary,
): Driver[] =>
  played
    .map((one): Driver => ({ ...one, gain: one.summary.carried - now.carried }))
    .sort((a, b) => b.gain - a.gain);

/** Which choice moves the answer most: each played over the same nights, the best first. */
export const driversOf = (plant: Plant, run: NightsRun, now: NightsSummary): Driver[] =>
  rankDrivers(
    Array.from({ length: choiceCount(plant, run) }, (_, index) => playChoice(plant, run, index)).filter(
      (one) => one !== undefined,
    ),
    now,
  );
