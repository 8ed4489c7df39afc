import { type Arrangement, type InverterType, isUnitPerLine } from '../../catalogue/inverterType.ts';
import { isPerLine, unitLines } from '../../installation/unitLines.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown } from '../../values/known.ts';
import { remember } from '../../values/remember.ts';
import type { Site, Stack } from '../../installation/facts.ts';
import { deratingFactor } from '../../network/derating.ts';
import type { Supply } from '../../installation/supply.ts';

/** What a set of inverters can carry, with all its units or with one of them gone. */
export interface Capability {
  /** Units that feed each line; a multi-line unit counts on each of its lines. */
  readonly unitsOnLine: readonly number[];
  readonly perLineVa: readonly number[];
  readonly perLineW: readonly number[];
  readonly totalVa: number;
  readonly totalW: number;
  readonly unitCount: number;
  readonly derating: number;
  /** Current-sharing tolerance used: 0 where one unit stands alone. */
  readonly sharing: number;
  /** Whether it makes AC in island at all. */
  readonly carries: boolean;
  /** The set as a whole has stopped because a unit is lost. */
  readonly stopped: boolean;
}

export interface CapabilityInputs {
  readonly site: Site;
  readonly supply: Known<Supply>;
  readonly stack: Stack;
  readonly type: Known<InverterType>;
  readonly neutralA: Known<number>;
  readonly sharingTolerance: number;
}

/** What makes no AC of its own in island: it may move energy on grid, and backs up nothing by itself. */
export const feedsNothing = (arrangement: Arrangement, type: InverterType): boolean =>
  arrangement === 'dc-side-box' || type.backupOutlet === 'none';

/**
 * Over how many lines one unit spreads its rating. Where type, arrangement and supply do not fit each other (which is a
 * finding of its own), the larger number stands, so that no line is credited with more than a unit can give it.
 */
export function linesMadeBy(arrangement: Arrangement, type: InverterType, supplyLines: number): number {
  if (arrangement === 'three-phase-ring') return Math.max(2, type.nativeLines);
  return isPerLine(arrangement) ? type.nativeLines : Math.max(type.nativeLines, supplyLines);
}

function countOnLines(
  stack: Stack,
  arrangement: Arrangement,
  supply: Supply,
  lostUnitId: string | undefined,
): Known<number[]> {
  const lines = unitLines(stack, arrangement, supply);
  if (!lines.known) return lines;
  const count = (units: Stack['units'], line: number): number =>
    units.filter((unit) => lines.value.get(unit.id)?.includes(line)).length;
  const present = stack.units.filter((unit) => unit.id !== lostUnitId);
  const whole = supply.lines.map((_, line) => count(stack.units, line));
  // A set that makes its lines from unequal counts is governed by its weakest line.
  const weakest = isUnitPerLine(arrangement) ? Math.min(...whole) : Infinity;
  return known(supply.lines.map((_, line) => Math.min(count(present, line), weakest)));
}

/**
 * Usable capacity per line: S_line = n · S_unit · derate(T) / (1 + ε), with ε = 0 for one unit.
 * A split-phase set behind an autotransformer carries on one line at most half its total plus half of what the
 * transformer's neutral can shift: S_line = S_total / 2 + V · I_neutral / 2. In a ring each line is fed by one half of each of the
 * units that meet in it, so n is counted in halves.
 */
export function capability(inputs: CapabilityInputs, lostUnitId?: string): Known<Capability> {
  const { site, stack } = inputs;
  const given = all({
    supply: inputs.supply,
    type: inputs.type,
    arrangement: field(stack.arrangement, 'stacks', stack.id, 'arrangement'),
    hottestC: field(site.equipmentHighestC, 'site', 'equipmentHighestC'),
  });
  if (!given.known) return given;
  const { supply, type, arrangement } = given.value;
  const counts = countOnLines(stack, arrangement, supply, lostUnitId);
  if (!counts.known) return counts;
  const stopped = lostUnitId !== undefined && (type.lostUnit === 'set-stops' || stack.units.length === 1);
  // A box on the DC side stands on no line; a storage inverter without outlet does, and charges from it.
  const unitsOnLine = stopped || arrangement === 'dc-side-box' ? counts.value.map(() => 0) : counts.value;
  const carries = !feedsNothing(arrangement, type);
  const derating = deratingFactor(type.derating, given.value.hottestC);
  const sum = (list: readonly number[]): number => list.reduce((total, one) => total + one, 0);
  const linesOfUnit =
    arrangement === 'three-phase-ring' ? 2 : isPerLine(arrangement) ? 1 : supply.lines.length;
  const unitCount = stopped ? 0 : sum(unitsOnLine) / linesOfUnit;
  const sharing = unitsOnLine.some((n) => n > 1) ? inputs.sharingTolerance : 0;
  const linesMade = linesMadeBy(arrangement, type, supply.lines.length);
  const lineShare = (rated: number): number[] =>
    unitsOnLine.map(
      (n) =>
        ((((carries ? n : 0) * rated) / linesMade) * derating) / (1 + (n > 1 ? inputs.sharingTolerance : 0)),
    );
  const perLineVa = lineShare(type.ratedVa);
  const perLineW = lineShare(type.ratedW);
  const whole = {
    unitsOnLine,
    totalVa: sum(perLineVa),
    totalW: sum(perLineW),
    unitCount,
    derating,
    sharing,
    carries,
    stopped,
  };
  if (arrangement !== 'split-phase-autotransformer') return known({ ...whole, perLineVa, perLineW });
  const shift = all({
    neutralA: inputs.neutralA,
    lineVoltageV: field(site.lineVoltageV, 'site', 'lineVoltageV'),
  });
  if (!shift.known) return shift;
  const shiftVa = unitCount === 0 ? 0 : (shift.value.lineVoltageV * shift.value.neutralA) / 2;
  const shifted = (list: readonly number[], total: number): number[] =>
    list.map((one) => Math.min(one + shiftVa, total));
  return known({
    ...whole,
    perLineVa: shifted(perLineVa, whole.totalVa),
    perLineW: shifted(perLineW, whole.totalW),
  });
}

const capabilities = remember((compiled: CompiledStack) => {
  const made = new Map<string | undefined, Known<Capability>>();
  const { stack, site, supply, type, autotransformer, defaults } = compiled;
  return (lostUnitId: string | undefined): Known<Capability> => {
    const before = made.get(lostUnitId);
    if (before !== undefined) return before;
    const neutralA = mapKnown(autotransformer, (one) => (one === 'none' ? 0 : one.neutralA));
    const sharingTolerance = defaults.currentSharingTolerance.value;
    const found = capability({ site, supply, stack, type, neutralA, sharingTolerance }, lostUnitId);
    made.set(lostUnitId, found);
    return found;
  };
});

/** What a set can carry, with all units or with one lost. */
export const capabilityWithout = (compiled: CompiledStack, lostUnitId?: string): Known<Capability> =>
  capabilities(compiled)(lostUnitId);
