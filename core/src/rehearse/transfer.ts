import { hypot } from '../values/elementary.ts';
import { transferTime } from '../figures/capability/transferTime.ts';
import { capabilityWithout } from '../figures/capability/capability.ts';
import type { InverterType } from '../catalogue/inverterType.ts';
import type { Complex } from '../network/complex.ts';
import { islandBoard } from '../figures/loads/boards.ts';
import type { CompiledStack } from '../installation/installation.ts';
import { allowedTimeS } from '../network/overload.ts';
import { all, type Known, mapKnown } from '../values/known.ts';
import type { Path } from '../values/problem.ts';
import { formatQuantity } from '../words/quantity.ts';
import type { Line } from '../values/quantities.ts';

/** One stretch of what a line is asked for after the transfer. */
export interface PickupStep {
  readonly fromS: number;
  readonly toS: number;
  readonly va: number;
  /** Voltage over nominal: what is asked for more than the curve knows lowers it, V = min(1, I_limit / I_demand). */
  readonly voltage: number;
}

export interface LinePickup {
  readonly line: Line;
  readonly ratedVa: number;
  /** What it is asked for once everything runs. */
  readonly runningVa: number;
  readonly steps: readonly PickupStep[];
  /** When the overload curve is used up, s; undefined where it holds. */
  readonly tripsAtS: number | undefined;
}

/** An event of the transfer, in the order of time. */
export interface TransferEvent {
  readonly atS: number;
  readonly sentence: string;
  readonly isBad: boolean;
}

export interface Transfer {
  readonly gapMs: number;
  readonly gapSetBy: string;
  /** What cannot take the gap, and for how long it could. */
  readonly drops: readonly { readonly what: string; readonly longestMs: number }[];
  /** Loads of which nobody knows what gap they take. */
  readonly missing: readonly Path[];
  readonly lines: readonly LinePickup[];
  readonly events: readonly TransferEvent[];
}

/** Below this share of nominal voltage a start probably stalls; a planning value of the job. */
const stallAt = ({ defaults }: CompiledStack): number => defaults.startVoltage.value;

/**
 * When an overload curve is used up: each stretch above 1.0 takes its time over the time that the curve allows at that level, Σ Δt / t(s),
 * and at 1 the unit trips. For one level alone this is the curve itself.
 */
function tripOf(
  steps: readonly { fromS: number; toS: number; va: number }[],
  ratedVa: number,
  curve: Parameters<typeof allowedTimeS>[0],
): number | undefined {
  let used = 0;
  for (const { fromS, toS, va } of steps) {
    const allowedS = ratedVa > 0 ? allowedTimeS(curve, va / ratedVa) : 0;
    if (allowedS === Infinity) continue;
    if (allowedS === 0) return fromS;
    const share = (toS - fromS) / allowedS;
    if (used + share > 1 + 1e-9) return fromS + (1 - used) * allowedS;
    used += share;
  }
  return undefined;
}

/** What a start in island is judged by: the loads, what the set carries on which lines, and its type. */
export const islandFigures = (compiled: CompiledStack) =>
  all({
    board: islandBoard(compiled),
    capability: capabilityWithout(compiled),
    supply: compiled.supply,
    type: compiled.type,
  });

/** What a line is asked for in stretches, from a moment on: the voltage they leave it, and when the overload curve is used up. */
export function pickupOf(
  line: Line,
  stretches: readonly { readonly va: number; readonly durationS: number }[],
  on: {
    readonly fromS: number;
    readonly ratedVa: number;
    readonly running: Complex | undefined;
    readonly type: InverterType;
  },
): LinePickup {
  const { ratedVa, running, type } = on;
  const most = type.overloadCurve.at(-1)?.multiple ?? 1;
  let at = on.fromS;
  const steps = stretches.map(({ va, durationS }): PickupStep => {
    const fromS = at;
    at += durationS;
    return { fromS, toS: at, va, voltage: va > 0 ? Math.min(1, (ratedVa * most) / va) : 1 };
  });
  const runningVa = running === undefined ? 0 : hypot(running.re, running.im);
  return { line, ratedVa, runningVa, steps, tripsAtS: tripOf(steps, ratedVa, type.overloadCurve) };
}

/**
 * The grid goes: how long the gap is and what cannot take it, then everything that starts by itself at once, or with the delays of the
 * design, line by line against the overload curve of the units.
 */
export function transferOf(compiled: CompiledStack): Known<Transfer> {
  const given = all({ time: transferTime(compiled), island: islandFigures(compiled) });
  if (!given.known) return given;
  const { board } = given.value.island;
  const pickup = board.isStaggered ? board.staggered : board.coldPickup;
  if (pickup.missing.length > 0) return { known: false, missing: pickup.missing };
  return mapKnown(given, ({ time, island: { capability, supply, type } }): Transfer => {
    const drops = board.circuits.flatMap(({ name, items }) =>
      items.flatMap((item) =>
        item.longestInterruptionMs !== undefined && item.longestInterruptionMs < time.ms
          ? [{ what: `${item.name} (${name})`, longestMs: item.longestInterruptionMs }]
          : [],
      ),
    );
    const missing = board.circuits.flatMap(({ id, items }) =>
      items.flatMap((item) =>
        item.longestInterruptionMs === undefined
          ? [['circuits', id, 'items', item.id, 'longestInterruptionMs']]
          : [],
      ),
    );
    const lines = supply.lines.map((line, index): LinePickup =>
      pickupOf(line, pickup.knownPart[index] ?? [], {
        fromS: time.ms / 1000,
        ratedVa: capability.perLineVa[index] ?? 0,
        running: board.continuous.knownPart[index],
        type,
      }),
    );
    return {
      gapMs: time.ms,
      gapSetBy: time.setBy,
      drops,
      missing,
      lines,
      events: eventsOf(compiled, time.ms, drops, lines),
    };
  });
}

/** A level that no point of the curve allows trips at once; any other after its time. */
function tripWords(line: Line, steps: readonly PickupStep[], atS: number): string {
  const step = steps.find(({ fromS, toS }) => atS >= fromS && atS < toS);
  return step?.fromS === atS
    ? `${line} is asked for ${formatQuantity(step.va, 'VA')}, more than the overload curve allows at all: the set trips.`
    : `The overload curve on ${line} is used up: the set trips.`;
}

function eventsOf(
  compiled: CompiledStack,
  gapMs: number,
  drops: Transfer['drops'],
  lines: readonly LinePickup[],
): TransferEvent[] {
  return [
    { atS: 0, sentence: 'The grid goes.', isBad: false },
    ...drops.map(({ what, longestMs }) => ({
      atS: longestMs / 1000,
      sentence: `${what} drops out: it takes ${longestMs} ms and the gap lasts ${gapMs} ms.`,
      isBad: true,
    })),
    { atS: gapMs / 1000, sentence: 'The inverters carry the load.', isBad: false },
    ...lineEvents(compiled, lines),
  ].sort((a, b) => a.atS - b.atS);
}

/** What goes wrong on the lines: a voltage at which what starts stalls, and a curve that is used up. */
export function lineEvents(compiled: CompiledStack, lines: readonly LinePickup[]): TransferEvent[] {
  const events: TransferEvent[] = [];
  for (const { line, tripsAtS, steps } of lines) {
    const stall = steps.find(({ voltage }) => voltage < stallAt(compiled));
    if (stall !== undefined)
      events.push({
        atS: stall.fromS,
        sentence: `${line} falls to ${Math.round(stall.voltage * 100)} % of its voltage: what starts there probably stalls.`,
        isBad: true,
      });
    if (tripsAtS !== undefined)
      events.push({ atS: tripsAtS, sentence: tripWords(line, steps, tripsAtS), isBad: true });
  }
  return events.sort((a, b) => a.atS - b.atS);
}
