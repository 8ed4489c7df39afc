import type { Circuit } from '../../installation/facts.ts';
import type { Supply } from '../../installation/supply.ts';
import type { Complex } from '../../network/complex.ts';
import type { Path } from '../../values/problem.ts';
import { factorsFor } from './gather.ts';
import { runsIn, shareOfWindow, type Stretch, stretchesOf } from './itemHours.ts';
import { runningItem } from './loads.ts';

/** The average load of each line in a stretch of the day, W + j·var. */
export interface LineStretch extends Stretch {
  readonly lines: readonly Complex[];
}

/**
 * The day of circuits line by line: the average of each item while it may run, as phasors. Figures that are missing count as nothing
 * here: whoever asks has looked at them before.
 *
 * @param stretches the parts of the day; by default cut where these circuits change.
 */
export function lineDay(
  circuits: readonly Circuit[],
  supply: Supply,
  stretches: readonly Stretch[] = stretchesOf(circuits),
): LineStretch[] {
  const factorsOf = factorsFor(supply);
  const nobodyAsks: Path[] = [];
  const days = stretches.map((stretch) => ({
    ...stretch,
    re: supply.lines.map(() => 0),
    im: supply.lines.map(() => 0),
  }));
  for (const circuit of circuits)
    for (const item of circuit.items) {
      const running = runningItem(circuit, item, factorsOf, nobodyAsks);
      const share = running === undefined ? 0 : running.quantity * shareOfWindow(item);
      if (running === undefined || share === 0) continue;
      const watts = running.oneW * share;
      const vars = running.oneVar * share;
      for (const day of days)
        if (runsIn(item, day))
          running.factors.forEach((factor, line) => {
            day.re[line] = (day.re[line] ?? 0) + watts * factor.re - vars * factor.im;
            day.im[line] = (day.im[line] ?? 0) + watts * factor.im + vars * factor.re;
          });
    }
  return days.map(({ fromH, toH, re, im }) => ({
    fromH,
    toH,
    lines: re.map((watts, line) => ({ re: watts, im: im[line] ?? 0 })),
  }));
}
