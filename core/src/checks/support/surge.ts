import type { StartOnLine, SurgeStep } from '../../figures/loads/surges.ts';
import { type WorstLevel, worstLevel } from '../../network/overload.ts';
import { formatNumber, formatQuantity } from '../../words/quantity.ts';
import type { CheckContext, Measured, Measurement } from '../check.ts';
import type { Found, Subject, Working } from '../finding.ts';
import { eachStack, type StackCase } from './eachLine.ts';
import { lineSubject, stackSubject } from './subjects.ts';
import { apparentPowerStep, lineCapabilityStep, lineInputs, symbol } from './workings.ts';

/** A place where surges meet a limit: one line of a stack, or the whole of a set that shares among its lines. */
export interface SurgePlace {
  readonly one: StackCase;
  readonly subject: Subject;
  readonly line: StackCase['lines'][number] | undefined;
  readonly ratedVa: number;
  readonly starts: readonly StartOnLine[];
  readonly coldPickup: readonly SurgeStep[];
  readonly staggered: readonly SurgeStep[];
}

/** Runs a surge measurement on every line of each stack of the mode, and on the whole of sets that share among lines. */
export function eachSurgePlace<Key extends string = never>(
  check: string,
  context: CheckContext,
  measure: (place: SurgePlace) => Measured<Key> | undefined,
): Found<Key>[] {
  return eachStack(check, context, 'VA', (one) => {
    const { board, capability, compiled } = one;
    const bare = (index: number): boolean => capability.carries && (capability.unitsOnLine[index] ?? 0) === 0;
    const places: SurgePlace[] = one.lines.map((line, index) => ({
      one,
      subject: lineSubject(compiled, line),
      line,
      ratedVa: capability.perLineVa[index] ?? 0,
      starts: board.starts.knownPart[index] ?? [],
      coldPickup: board.coldPickup.knownPart[index] ?? [],
      staggered: board.isStaggered ? (board.staggered.knownPart[index] ?? []) : [],
    }));
    if (compiled.stack.arrangement === 'split-phase-autotransformer') {
      const subject = {
        ...stackSubject(compiled),
        about: [{ kind: 'stack' as const, id: compiled.stack.id }],
        label: `${compiled.stack.name} as a whole`,
      };
      places.push({
        one,
        subject,
        line: undefined,
        ratedVa: capability.totalVa,
        starts: board.totalStarts,
        coldPickup: board.totalColdPickup,
        staggered: board.isStaggered ? board.totalStaggered : [],
      });
    }
    // A line without an inverter is dark, and that is told once, by itself.
    return places.filter(({ line }) => line === undefined || !bare(one.lines.indexOf(line))).map(measure);
  });
}

const seconds = (value: number): string => (Number.isFinite(value) ? `${formatNumber(value)} s` : 'any time');

/** One envelope held against the overload curve, as a measurement with its working. */
export function surgeMeasurement(
  context: CheckContext,
  place: SurgePlace,
  envelope: readonly SurgeStep[],
  label: string,
  missing: Measurement['missing'],
  notes: readonly string[],
): Measurement<'label' | 'needed' | 'allowed'> {
  const { one, subject, ratedVa } = place;
  const worst = worstLevel(envelope, one.type.overloadCurve, ratedVa);
  return {
    subject,
    value: worst?.va ?? 0,
    limit: worst?.allowedVa ?? ratedVa,
    unit: 'VA',
    missing: missing ?? [],
    data: { label, needed: seconds(worst?.neededS ?? 0), allowed: seconds(worst?.allowedS ?? Infinity) },
    working: () => surgeWorking(context, place, envelope, worst, label, notes),
  };
}

function surgeWorking(
  { installation }: CheckContext,
  { one, line, ratedVa }: SurgePlace,
  envelope: readonly SurgeStep[],
  worst: WorstLevel | undefined,
  label: string,
  notes: readonly string[],
): Working {
  const neededS = worst?.neededS ?? 0;
  const power = envelope[worst?.index ?? 0]?.power ?? { re: 0, im: 0 };
  const { compiled, type, capability } = one;
  const capacity =
    line === undefined
      ? []
      : [lineCapabilityStep(installation, compiled, type, capability, one.lines.indexOf(line), 'VA')];
  return {
    steps: [
      apparentPowerStep('S_surge', `while ${label} starts, running loads included`, power),
      ...capacity,
      {
        symbol: 'S_allowed',
        meaning: `what may be given for ${seconds(neededS)}`,
        formula: 'S_line · m',
        symbols: [
          symbol(
            'S_line',
            line === undefined ? 'usable capacity of the set' : 'usable capacity of the line',
            ratedVa,
            'VA',
          ),
          symbol(
            'm',
            `multiple the overload curve allows for ${seconds(neededS)}`,
            ratedVa > 0 ? (worst?.allowedVa ?? 0) / ratedVa : 0,
            '',
            ['stacks', compiled.stack.id, 'inverterTypeId'],
          ),
        ],
        value: worst?.allowedVa ?? 0,
        unit: 'VA',
      },
    ],
    inputs: lineInputs(one.board, line),
    source:
      'Running and starting VA added as phasors; at every level the longest contiguous time is held against the overload curve, straight in log–log between its points.',
    notes: [
      `Level ${formatQuantity(worst?.va ?? 0, 'VA')} is held for ${seconds(neededS)}; the curve allows it for ${seconds(worst?.allowedS ?? Infinity)}.`,
      ...notes,
    ],
  };
}
