import type { Minute } from './minute.ts';
import type { OutageRun } from './outageRun.ts';
import type { Plant } from './plant.ts';

/** A bank this little above its floor is empty, share of it. */
const NEARLY = 0.005;
/** Sun that is held back is told once in so many minutes: a full bank takes some again every few. */
const HELD_BACK_AGAIN = 720;
/** Less sun held back is rounding, W. */
const LEAST_HELD_BACK_W = 1;

/** Something that changes in the course of an outage, as a sentence. */
export interface OutageEvent {
  readonly minute: number;
  readonly sentence: string;
  /** Whether somebody goes dark by it. */
  readonly isBad: boolean;
}

/** An empty bank comes back by sun on its own inputs or by a generator; sun on the AC side waits for a set that is live. */
const isStuck = ({ generator, sunDcW, sunAcW }: Plant): boolean =>
  generator === undefined &&
  !sunDcW.some((day) => day.some((watts) => watts > 0)) &&
  sunAcW.some((day) => day.some((watts) => watts > 0));

/** Why a set goes dark in a minute. */
function whyDark(plant: Plant, now: Readonly<Minute>): string {
  if (now.isStopped)
    return plant.lostUnit === 'set-stops' && plant.unitCount > 1
      ? 'A unit fails, and the set stops with it.'
      : 'The unit fails, and no other feeds this.';
  const { lines, most, engineW, loadW } = now.strain;
  const worst = (most[now.at] ?? 0) * now.factor;
  // On lines that the generator does not reach the inverters are asked.
  const isReached = (engineW[now.at] ?? 0) >= (loadW[now.at] ?? 0);
  if (now.isRunning && (isReached || worst <= 1)) return 'The load is more than the generator gives.';
  if (worst > 1) {
    const line = lines.findIndex((one) => (one[now.at] ?? 0) * now.factor >= worst);
    const name = plant.limits?.names[line];
    return name === undefined || lines.length < 2
      ? 'The load is more than the inverters give.'
      : `${name} is asked for more than the inverters give on it.`;
  }
  if (now.soc > plant.floorSoc + NEARLY) return 'The load is more than the bank gives.';
  return isStuck(plant)
    ? 'The bank is empty, and sun that is coupled on the AC side cannot start it again.'
    : 'The bank is empty.';
}

/** What fails of itself, not as a consequence; a set that stops with it says so by itself. */
function failure(plant: Plant, { lose }: OutageRun, now: Readonly<Minute>): string | undefined {
  if (lose === undefined || now.isStopped) return undefined;
  if (lose.what === 'module')
    return `A module fails: ${plant.moduleCount - 1} of ${plant.moduleCount} are left, and what was in it is gone.`;
  const at = plant.limits?.without.findIndex(({ unitId }) => unitId === lose.unitId) ?? -1;
  return `${at < 0 ? 'A unit' : `Unit ${at + 1}`} fails: ${plant.unitCount - 1} of ${plant.unitCount} carry on.`;
}

/** What carries a set that has come back. */
const backBy = (now: Readonly<Minute>): string =>
  now.generatorW > 0 ? ', by the generator' : now.sunDcW + now.sunAcW > 0 ? ', by the sun' : '';

/** Told minute by minute, in their order, what changes. */
export function eventTeller(
  plant: Plant,
  run: OutageRun,
): (minute: number, now: Readonly<Minute>) => readonly OutageEvent[] {
  let before: Readonly<Minute> | undefined;
  let heldBackAt = -Infinity;
  return (minute, now) => {
    const events: OutageEvent[] = [];
    const tell = (sentence: string, isBad = false): void => void events.push({ minute, sentence, isBad });
    const failed = minute === run.lose?.minute ? failure(plant, run, now) : undefined;
    if (failed !== undefined) tell(failed);
    const wasLit = before === undefined || before.served > 0;
    const isLit = now.served > 0;
    if (wasLit && !isLit) tell(whyDark(plant, now), true);
    if (!wasLit && isLit) tell(`Live again${backBy(now)}.`);
    if (now.generatorW > 0 && (before?.generatorW ?? 0) === 0)
      tell('The generator carries the load and charges.');
    if (now.generatorW === 0 && (before?.generatorW ?? 0) > 0)
      tell(now.isFuelSpent ? 'The generator stops: its fuel is spent.' : 'The generator stops.');
    if (isLit && now.curtailedW > LEAST_HELD_BACK_W && minute - heldBackAt > HELD_BACK_AGAIN) {
      heldBackAt = minute;
      tell('The sun gives more than load and bank take: the rest is held back.');
    }
    plant.boards.forEach(({ name, shedBelowSoc }, board) => {
      if (shedBelowSoc === undefined || before === undefined || !wasLit || !isLit) return;
      const was = (before.boards & (1 << board)) !== 0;
      const is = (now.boards & (1 << board)) !== 0;
      if (was && !is) tell(`${name} is shed.`);
      if (!was && is) tell(`${name} is back.`);
    });
    before = now;
    return events;
  };
}

/** Time of day of a minute of an outage: "18:00", with the day where it is not the first. */
export function clockOf({ startMinute }: Pick<OutageRun, 'startMinute'>, minute: number): string {
  const at = startMinute + minute;
  const day = Math.floor(at / 1440);
  const clock = `${String(Math.floor((at % 1440) / 60)).padStart(2, '0')}:${String(Math.floor(at % 60)).padStart(2, '0')}`;
  return day === 0 ? clock : `${clock}, day ${day + 1}`;
}
