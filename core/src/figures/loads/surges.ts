import { hypot } from '../../values/elementary.ts';
import { remember } from '../../values/remember.ts';
import type { StartStep } from '../../codes/starts.ts';
import type { Path } from '../../values/problem.ts';
import { type Complex, ZERO } from '../../network/complex.ts';
import type { EnvelopeStep } from '../../network/overload.ts';
import { itemPath, type LineFactors, type RunningItem } from './loads.ts';

/** A running item that starts, with its share of the expected peak. */
export interface StartingItem {
  readonly running: RunningItem;
  readonly demand: number;
  readonly steps: readonly StartStep[];
  /** Its durations as text: starts of one pattern can be compared step by step. */
  readonly pattern: string;
  /** How long after supply returns its circuit is closed. */
  readonly delayS: number;
}

/** A load that does not start but whose circuit closes with a delay: its expected peak, all of them. */
export interface DelayedLoad {
  readonly running: RunningItem;
  readonly watts: number;
  readonly vars: number;
  readonly delayS: number;
}

/** A stretch of a surge with the power behind its VA, so that the working can show it. */
export interface SurgeStep extends EnvelopeStep {
  readonly power: Complex;
}

/** One start on top of the others' expected peak, as one place sees it. */
export interface StartOnLine {
  readonly label: string;
  readonly path: Path;
  readonly steps: readonly SurgeStep[];
}

/** What one place sees of a load: its own line's factor, or the sum over the lines, which is the whole load. */
export type Sight = (factors: LineFactors) => Complex;
const WHOLE: Complex = { re: 1, im: 0 };
const LINES: readonly Sight[] = [0, 1, 2].map(
  (line): Sight =>
    (factors) =>
      factors[line] ?? ZERO,
);
/** The sight of a line is one and the same object, so that what was seen can be kept beside it. */
export const seeLine = (line: number): Sight => LINES[line] ?? (() => ZERO);
export const seeWhole: Sight = () => WHOLE;

/** Loads that start and loads that only wait, together: what follows from some is kept for as long as they stay the same object. */
export interface Surging {
  readonly starts: readonly StartingItem[];
  readonly delayed: readonly DelayedLoad[];
}

/** Starting power of one: W and var at a step. */
const startW = (start: StartingItem, step: StartStep): number =>
  start.running.oneVa * step.multiple * step.powerFactor;
const startVar = (start: StartingItem, step: StartStep): number =>
  start.running.oneVa * step.multiple * Math.sqrt(1 - step.powerFactor * step.powerFactor);

const surgeStep = (re: number, im: number, durationS: number): SurgeStep => ({
  va: hypot(re, im),
  durationS,
  power: { re, im },
});

/** A start as one place sees it: what each of its steps adds to the expected peak, W and var in turn. */
interface Seen {
  readonly start: StartingItem;
  readonly added: readonly number[];
}

interface Candidate {
  readonly start: StartingItem;
  /** VA of each step, squared: only which is more counts. */
  readonly vas: readonly number[];
}

const outdoes = (a: readonly number[], b: readonly number[]): boolean =>
  a.every((va, index) => va >= (b[index] ?? 0));

/** What starts, by pattern, as one place sees it. */
const seen = remember(({ starts }: Surging) =>
  remember((sight: Sight): ReadonlyMap<string, readonly Seen[]> => {
    const byPattern = new Map<string, Seen[]>();
    for (const start of starts) {
      const factor = sight(start.running.factors);
      if (factor.re === 0 && factor.im === 0) continue;
      const added = start.steps.flatMap((step) => {
        const { re, im } = powerDuring(start, step, ZERO, factor);
        return [re, im];
      });
      const alike = byPattern.get(start.pattern);
      if (alike === undefined) byPattern.set(start.pattern, [{ start, added }]);
      else alike.push({ start, added });
    }
    return byPattern;
  }),
);

const squaredVa = (total: Complex, added: readonly number[], at: number): number => {
  const re = total.re + (added[at] ?? 0);
  const im = total.im + (added[at + 1] ?? 0);
  return re * re + im * im;
};

/** Adds starts of one pattern to those that no other outdoes; of several alike the first stays. */
function outdo(before: readonly Candidate[], alike: readonly Seen[], total: Complex): readonly Candidate[] {
  let rivals = before;
  // One list for all: most starts are outdone, and leave nothing behind.
  const vas = (alike[0]?.start.steps ?? []).map(() => 0);
  for (const { start, added } of alike) {
    for (let step = 0; step < vas.length; step += 1) vas[step] = squaredVa(total, added, 2 * step);
    if (rivals.some((rival) => outdoes(rival.vas, vas))) continue;
    rivals = [...rivals.filter((rival) => !outdoes(vas, rival.vas)), { start, vas: [...vas] }];
  }
  return rivals;
}

/** The power on top of everybody else's expected peak while one of an item starts. */
function powerDuring(start: StartingItem, step: StartStep, total: Complex, factor: Complex): Complex {
  const watts = startW(start, step) - start.running.oneW * start.demand;
  const vars = startVar(start, step) - start.running.oneVar * start.demand;
  return {
    re: total.re + watts * factor.re - vars * factor.im,
    im: total.im + watts * factor.im + vars * factor.re,
  };
}

/** The starts that no other start of the same pattern outdoes, on top of the expected peak `total` of one place. */
export function outstandingStarts(groups: readonly Surging[], total: Complex, sight: Sight): StartOnLine[] {
  const byPattern = new Map<string, readonly Candidate[]>();
  for (const group of groups)
    for (const [pattern, alike] of seen(group)(sight))
      byPattern.set(pattern, outdo(byPattern.get(pattern) ?? [], alike, total));
  return [...byPattern.values()].flat().map(({ start }) => ({
    label: labelOf(start),
    path: itemPath(start.running.circuit, start.running.item),
    steps: oneStart(start, total, sight),
  }));
}

/** One of an item starts on top of everybody else's expected peak, as one place sees it. */
export const oneStart = (start: StartingItem, total: Complex, sight: Sight): SurgeStep[] =>
  start.steps.map((step) => {
    const power = powerDuring(start, step, total, sight(start.running.factors));
    return surgeStep(power.re, power.im, step.durationS);
  });

/** The item, with its circuit where that tells more. */
export function labelOf({ running: { item, circuit } }: StartingItem): string {
  return item.name === circuit.name ? item.name : `${item.name} (${circuit.name})`;
}

/** Power changes gathered by the moment they happen. */
class Changes {
  private readonly at = new Map<number, { re: number; im: number }>();

  add(atS: number, watts: number, vars: number, factor: Complex): void {
    this.change(atS, watts * factor.re - vars * factor.im, watts * factor.im + vars * factor.re);
  }

  addAll({ at }: Changes): void {
    for (const [atS, { re, im }] of at) this.change(atS, re, im);
  }

  private change(atS: number, re: number, im: number): void {
    const before = this.at.get(atS);
    if (before === undefined) this.at.set(atS, { re, im });
    else {
      before.re += re;
      before.im += im;
    }
  }

  /** The envelope from a level on, up to the last moment at which something changes. */
  envelope(from: Complex): SurgeStep[] {
    let { re, im } = from;
    const moments = [...this.at.keys()].sort((a, b) => a - b);
    return moments.flatMap((atS, index) => {
      const change = this.at.get(atS);
      re += change?.re ?? 0;
      im += change?.im ?? 0;
      const until = moments[index + 1];
      return until === undefined ? [] : [surgeStep(re, im, until - atS)];
    });
  }
}

/** Adds one start, of all there are of the item, to the changes: from what it drew before to running in full. */
function addStart(
  changes: Changes,
  start: StartingItem,
  fromS: number,
  before: number,
  factor: Complex,
): void {
  const { running, steps } = start;
  let beforeW = running.oneW * before;
  let beforeVar = running.oneVar * before;
  let atS = fromS;
  for (let index = 0; index <= steps.length; index += 1) {
    const step = steps[index];
    const watts = step === undefined ? running.oneW : startW(start, step);
    const vars = step === undefined ? running.oneVar : startVar(start, step);
    changes.add(atS, running.quantity * (watts - beforeW), running.quantity * (vars - beforeVar), factor);
    beforeW = watts;
    beforeVar = vars;
    atS += step?.durationS ?? 0;
  }
}

const together = remember(({ starts }: Surging) =>
  remember((sight: Sight): Changes => {
    const changes = new Changes();
    for (const start of starts) {
      const factor = sight(start.running.factors);
      if (factor.re !== 0 || factor.im !== 0) addStart(changes, start, 0, start.demand, factor);
    }
    return changes;
  }),
);

/**
 * Everything that starts, starts together at time 0, and then runs: diversity is lost after a long break, so starting
 * items count in full and without their demand factor. Items that do not start stay at their expected peak.
 * Changes at the same moment are added up first, so that only the distinct moments are sorted.
 */
export function coldPickup(groups: readonly Surging[], total: Complex, sight: Sight): SurgeStep[] {
  const changes = new Changes();
  for (const group of groups) changes.addAll(together(group)(sight));
  return changes.envelope(total);
}

/** Pickup with the delays of the design: what stands behind a delay is dark until its moment, and then starts in full. */
export function staggeredPickup(groups: readonly Surging[], total: Complex, sight: Sight): SurgeStep[] {
  const changes = new Changes();
  for (const group of groups) changes.addAll(oneByOne(group)(sight));
  return changes.envelope(total);
}

const oneByOne = remember((surging: Surging) => remember((sight: Sight) => staggeredChanges(surging, sight)));

function staggeredChanges({ starts, delayed }: Surging, sight: Sight): Changes {
  const changes = new Changes();
  for (const start of starts) {
    const { running, demand, delayS } = start;
    const factor = sight(running.factors);
    if (factor.re === 0 && factor.im === 0) continue;
    const drawnBefore = delayS > 0 ? 0 : demand;
    if (delayS > 0) {
      const share = running.quantity * demand;
      changes.add(0, -running.oneW * share, -running.oneVar * share, factor);
    }
    addStart(changes, start, delayS, drawnBefore, factor);
  }
  for (const { running, watts, vars, delayS } of delayed) {
    const factor = sight(running.factors);
    if (factor.re === 0 && factor.im === 0) continue;
    changes.add(0, -watts, -vars, factor);
    changes.add(delayS, watts, vars, factor);
  }
  return changes;
}

interface StartMoment {
  readonly start: StartingItem;
  readonly step: StartStep;
  /** Above what everything draws on average, W. */
  readonly aboveW: number;
}

/** The start that adds most real power, as one place sees it. */
const steepest = remember(({ starts }: Surging) =>
  remember((sight: Sight): StartMoment | undefined => {
    let largest: StartMoment | undefined;
    for (const start of starts) {
      const factor = sight(start.running.factors);
      if (factor.re === 0 && factor.im === 0) continue;
      for (const step of start.steps) {
        const aboveW = powerDuring(start, step, ZERO, factor).re;
        if (largest === undefined || aboveW > largest.aboveW) largest = { start, step, aboveW };
      }
    }
    return largest;
  }),
);

/** Real power during one start, on top of everybody else's expected peak. */
export interface BatteryStart {
  /** All lines together. */
  readonly watts: number;
  readonly linesW: readonly number[];
  readonly durationS: number;
  readonly label: string;
}

/**
 * The starts that ask most of a battery: first the one with the largest real power of all lines together, then those with the
 * largest on each line, where they are others. A start on one line is fed by the inverters of that line alone. No line carries less
 * than its continuous load, which may have been measured above the others' expected peak.
 */
export function batteryStarts(
  groups: readonly Surging[],
  expected: readonly Complex[],
  continuous: readonly Complex[],
): BatteryStart[] {
  const sights = [seeWhole, ...expected.map((_, line) => seeLine(line))];
  const largest = sights.map((sight) =>
    groups.reduce<StartMoment | undefined>((most, group) => {
      const one = steepest(group)(sight);
      return one !== undefined && (most === undefined || one.aboveW > most.aboveW) ? one : most;
    }, undefined),
  );
  const found = largest.filter((one) => one !== undefined);
  const isFirst = ({ start, step }: StartMoment, at: number): boolean =>
    found.findIndex((one) => one.start === start && one.step === step) === at;
  return found.filter(isFirst).map(({ start, step }) => {
    const linesW = expected.map((line, at) =>
      Math.max(
        powerDuring(start, step, line, start.running.factors[at] ?? { re: 0, im: 0 }).re,
        continuous[at]?.re ?? 0,
      ),
    );
    const watts = linesW.reduce((sum, line) => sum + line, 0);
    return { watts, linesW, durationS: step.durationS, label: labelOf(start) };
  });
}
