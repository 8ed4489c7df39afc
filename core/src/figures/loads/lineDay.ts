import type { Circuit } from '../../installation/facts.ts';
import type { Supply } from '../../installation/supply.ts';
import { add, type Complex, ZERO } from '../../network/complex.ts';
import type { Path } from '../../values/problem.ts';
import { remember } from '../../values/remember.ts';
import { type Chunk, chunksOf } from './chunks.ts';
import { factorsFor } from './gather.ts';
import { runsIn, shareOfWindow, type Stretch, stretchesOf } from './itemHours.ts';
import { runningItem } from './loads.ts';

/** The parts of a day in which nothing of some chunks changes. */
function stretchesAcross(chunks: readonly Chunk[]): Stretch[] {
  const edges = [...new Set(chunks.flatMap((chunk) => edgesOf(chunk)))].sort((a, b) => a - b);
  return edges.slice(1).map((toH, at) => ({ fromH: edges[at] ?? 0, toH }));
}

const edgesOf = remember(({ circuits }: Chunk): readonly number[] =>
  stretchesOf(circuits).flatMap(({ fromH, toH }) => [fromH, toH]),
);

interface ChunkDay {
  readonly supply: Supply;
  readonly day: readonly LineStretch[];
}

const days = new WeakMap<Chunk, ChunkDay>();

const isSameDay = (a: readonly Stretch[], b: readonly Stretch[]): boolean =>
  a.length === b.length && a.every(({ toH }, at) => toH === b[at]?.toH);

function dayOf(chunk: Chunk, supply: Supply, stretches: readonly Stretch[]): readonly LineStretch[] {
  const before = days.get(chunk);
  if (before?.supply === supply && isSameDay(before.day, stretches)) return before.day;
  const day = lineDay(chunk.circuits, supply, stretches);
  days.set(chunk, { supply, day });
  return day;
}

/** The day of the circuits of a board, summed chunk by chunk. */
export function boardDay(circuits: readonly Circuit[], supply: Supply): LineStretch[] {
  const chunks = chunksOf(circuits);
  const stretches = stretchesAcross(chunks);
  const parts = chunks.map((chunk) => dayOf(chunk, supply, stretches));
  return stretches.map((stretch, at) => ({
    ...stretch,
    lines: supply.lines.map((_, line) =>
      parts.reduce((sum, day) => add(sum, day[at]?.lines[line] ?? ZERO), ZERO),
    ),
  }));
}

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
