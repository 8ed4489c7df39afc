import type { Path } from '../../values/problem.ts';
import type { Circuit, Item } from '../../installation/facts.ts';
import type { Complex } from '../../network/complex.ts';
import { type LineFactors, runningItem, stepsOfStart } from './loads.ts';
import type { Line } from '../../values/quantities.ts';
import type { Supply } from '../../installation/supply.ts';

export const HOURS_OF_DAY = 24;

/** What one circuit draws on each line: at the expected peak, in each hour of the day, and while all of it starts. */
export interface CircuitPower {
  readonly expected: readonly Complex[];
  /** hourly[hour][line] */
  readonly hourly: readonly (readonly Complex[])[];
  readonly surge: readonly Complex[];
  readonly missing: readonly Path[];
}

/** Whether an item may run in an hour of the day; without a window it may always. The window may lie past midnight. */
export function runsInHour({ runsFromH, runsToH }: Item, hour: number): boolean {
  if (runsFromH === undefined || runsToH === undefined) return true;
  const overlaps = (from: number, to: number): boolean => from < hour + 1 && to > hour;
  return runsFromH < runsToH
    ? overlaps(runsFromH, runsToH)
    : overlaps(runsFromH, HOURS_OF_DAY) || overlaps(0, runsToH);
}

interface Sums {
  readonly expected: { re: number; im: number }[];
  readonly hourly: { re: number; im: number }[][];
  readonly surge: { re: number; im: number }[];
}

const emptyLines = (count: number): { re: number; im: number }[] =>
  Array.from({ length: count }, () => ({ re: 0, im: 0 }));

function addTo(
  target: { re: number; im: number }[],
  factors: LineFactors,
  watts: number,
  vars: number,
): void {
  target.forEach((sum, line) => {
    const factor = factors[line];
    if (factor === undefined) return;
    sum.re += watts * factor.re - vars * factor.im;
    sum.im += watts * factor.im + vars * factor.re;
  });
}

/** The powers of a circuit; what is not known of it is named in `missing` and not counted. */
export function circuitPower(
  circuit: Circuit,
  supply: Supply,
  factorsOf: (lines: readonly Line[]) => LineFactors,
): CircuitPower {
  const missing: Path[] = circuit.items.length === 0 ? [['circuits', circuit.id, 'items']] : [];
  const sums: Sums = {
    expected: emptyLines(supply.lines.length),
    hourly: Array.from({ length: HOURS_OF_DAY }, () => emptyLines(supply.lines.length)),
    surge: emptyLines(supply.lines.length),
  };
  for (const item of circuit.items) {
    const running = runningItem(circuit, item, factorsOf, missing);
    const steps = stepsOfStart(circuit, item, supply, missing);
    if (item.demandFactor === undefined)
      missing.push(['circuits', circuit.id, 'items', item.id, 'demandFactor']);
    if (running === undefined || item.demandFactor === undefined) continue;
    const watts = running.oneW * running.quantity * item.demandFactor;
    const vars = running.oneVar * running.quantity * item.demandFactor;
    addTo(sums.expected, running.factors, watts, vars);
    sums.hourly.forEach((lines, hour) => {
      if (runsInHour(item, hour)) addTo(lines, running.factors, watts, vars);
    });
    const step = steps?.[0];
    if (step === undefined) addTo(sums.surge, running.factors, watts, vars);
    else {
      const startVa = running.oneVa * running.quantity * step.multiple;
      const { powerFactor } = step;
      addTo(
        sums.surge,
        running.factors,
        startVa * powerFactor,
        startVa * Math.sqrt(1 - powerFactor * powerFactor),
      );
    }
  }
  return { ...sums, missing };
}
