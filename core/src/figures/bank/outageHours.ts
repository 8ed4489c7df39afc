import type { Circuit } from '../../installation/facts.ts';
import { type Chunk, chunksOf } from '../loads/chunks.ts';
import { HOURS_OF_DAY } from '../loads/circuitPower.ts';
import { remember } from '../../values/remember.ts';
import { runsIn, shareOfWindow, type Stretch, stretchesOf, windowOf } from '../loads/itemHours.ts';

/** What is drawn in a stretch of the day, W, by each part of the load that may be shed by itself. */
export interface DayStretch extends Stretch {
  /** In the order of the parts. */
  readonly watts: readonly number[];
}

/** Circuits that stay until the state of charge falls below a level; undefined for those that are never shed. */
export interface DayPart {
  readonly circuits: readonly Circuit[];
  readonly shedBelowSoc: number | undefined;
}

/** Whether any item says when it runs: only then does the hour at which an outage begins make a difference. */
export const hasHours = (circuits: readonly Circuit[]): boolean => chunksOf(circuits).some(hasWindow);

const hasWindow = remember(({ circuits }: Chunk) =>
  circuits.some(({ items }) => items.some((item) => windowOf(item) !== undefined)),
);

/**
 * The day of a load as stretches of constant power. An item with a window spreads its hours a day over that window, at most at its full
 * running power; one without spreads them over the whole day. Figures that are missing count as nothing here: whoever asks has
 * looked at them before.
 */
export function dayStretches(parts: readonly DayPart[]): DayStretch[] {
  const stretches = stretchesOf(parts.flatMap(({ circuits }) => circuits)).map((stretch) => ({
    ...stretch,
    watts: parts.map(() => 0),
  }));
  parts.forEach(({ circuits }, part) => {
    for (const { items } of circuits)
      for (const item of items) {
        const watts = (item.quantity ?? 0) * (item.runningW ?? 0) * shareOfWindow(item);
        for (const stretch of stretches)
          if (runsIn(item, stretch)) stretch.watts[part] = (stretch.watts[part] ?? 0) + watts;
      }
  });
  return stretches;
}

export interface OutageBank {
  readonly fullWh: number;
  readonly startSoc: number;
  readonly floorSoc: number;
  /** DC power for a load of so many W. */
  readonly drawW: (loadW: number) => number;
}

/** An outage longer than this lasts "for ever", h. */
const LONGEST_H = HOURS_OF_DAY * 400;

/**
 * Hours until the floor is reached when the outage begins at an hour of the day: the energy between two levels is spent stretch by
 * stretch, E = Σ P_dc · t, and each part goes at its level.
 */
export function outageHours(
  stretches: readonly DayStretch[],
  parts: readonly DayPart[],
  bank: OutageBank,
  startH: number,
): number {
  let soc = bank.startSoc;
  let hours = 0;
  let at = Math.max(
    0,
    stretches.findIndex(({ fromH, toH }) => startH >= fromH && startH < toH),
  );
  let leftH = (stretches[at]?.toH ?? HOURS_OF_DAY) - startH;
  while (soc > bank.floorSoc && hours < LONGEST_H) {
    // A part is gone as soon as its level is reached.
    const isOn = parts.map(({ shedBelowSoc }) => shedBelowSoc === undefined || soc > shedBelowSoc);
    const loadW = (stretches[at]?.watts ?? []).reduce(
      (sum, watts, part) => sum + (isOn[part] === true ? watts : 0),
      0,
    );
    const drawnW = bank.drawW(loadW);
    const next = Math.max(
      bank.floorSoc,
      ...parts.flatMap(({ shedBelowSoc }, part) =>
        isOn[part] === true && shedBelowSoc !== undefined ? [shedBelowSoc] : [],
      ),
    );
    const toLevelH = drawnW > 0 ? ((soc - next) * bank.fullWh) / drawnW : Infinity;
    if (toLevelH <= leftH) {
      hours += toLevelH;
      leftH -= toLevelH;
      soc = next;
    } else {
      hours += leftH;
      soc -= (drawnW * leftH) / bank.fullWh;
      at = (at + 1) % stretches.length;
      leftH = (stretches[at]?.toH ?? HOURS_OF_DAY) - (stretches[at]?.fromH ?? 0);
    }
  }
  return hours >= LONGEST_H ? Infinity : hours;
}
