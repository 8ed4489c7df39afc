import { boardWayOhm } from '../figures/protection/gridWay.ts';
import type { CableLine } from '../figures/wiring/cableLine.ts';
import type { Circuit } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import { type Known, mapKnown } from '../values/known.ts';
import { remember } from '../values/remember.ts';
import { type AskedLine, askLine, withFaults } from './askLine.ts';
import { judgeSize } from './judgeSize.ts';
import { protectiveMm2 } from './protective.ts';
import type { SizeAnswer, SizeTest } from './question.ts';
import { type Smallest, smallestSize, worstOf } from './smallestSize.ts';

/** A stated size, tested. */
export interface ChosenSize {
  readonly areaMm2: number;
  readonly answers: readonly SizeAnswer[];
  readonly worst: SizeAnswer | undefined;
}

/** A cable with everything that follows from what it must carry. */
export interface SizedLine extends AskedLine {
  readonly smallest: Smallest;
  /** The size that is stated; undefined while none is. */
  readonly chosen: ChosenSize | undefined;
  /** Least protective conductor with the stated size, else with the smallest. */
  readonly protectiveMm2: number | undefined;
}

/** Tests of a device that nobody has stated are tests of a plan. */
const OF_DEVICE = new Set(['device', 'overload', 'small-conductor']);

/** The stated size of a cable, tested with what is stated: in every way, or in those wanted. */
export function chosenSize(
  { line, question, deviceA }: AskedLine,
  wanted?: ReadonlySet<SizeTest>,
): ChosenSize | undefined {
  if (!line.areaMm2.known) return undefined;
  const areaMm2 = line.areaMm2.value;
  const answers = judgeSize(question, areaMm2, wanted).filter(
    ({ test }) => deviceA !== undefined || !OF_DEVICE.has(test),
  );
  return { areaMm2, answers, worst: worstOf(answers) };
}

/** A cable with the smallest size that passes, and the stated one tested; see `askLine` for when there is none. */
export function sizeLine(installation: Installation, line: CableLine): Known<SizedLine> | undefined {
  const sizes = sizesOf(installation);
  const before = sizes.get(line);
  if (before !== undefined) return before.sized;
  const sized = size(installation, line);
  sizes.set(line, { sized });
  return sized;
}

/** Several schedules look at the same cables: each is sized once for an installation. */
const sizesOf = remember(
  (_installation: Installation) => new WeakMap<CableLine, { readonly sized: Known<SizedLine> | undefined }>(),
);

/** Everything that the faults of a circuit follow from, beside the circuit: the same objects and figures while nobody changes them. */
function aroundOf(installation: Installation, circuit: Circuit | undefined): readonly unknown[] {
  const { site, defaults, partitions, types, stacks, generators } = installation;
  return [
    site,
    defaults,
    partitions,
    types,
    circuit?.partitionId === undefined ? 0 : boardWayOhm(installation, circuit.partitionId),
    ...stacks.map(({ stack }) => stack),
    ...generators.map(({ generator }) => generator),
  ];
}

const sizedLast = new WeakMap<
  AskedLine,
  { readonly around: readonly unknown[]; readonly sized: SizedLine }
>();

/** The cable of a circuit as it was sized last, where neither it nor anything around it has changed since. */
function sizedAgain(installation: Installation, asked: AskedLine): SizedLine {
  const around = aroundOf(installation, asked.line.circuit);
  const before = sizedLast.get(asked);
  if (before?.around.length === around.length && before.around.every((one, at) => one === around[at]))
    return before.sized;
  const sized = sizedOf(installation, asked);
  sizedLast.set(asked, { around, sized });
  return sized;
}

function size(installation: Installation, line: CableLine): Known<SizedLine> | undefined {
  const asked = askLine(installation, line);
  const how = line.circuit === undefined ? sizedOf : sizedAgain;
  return asked && mapKnown(asked, (one) => how(installation, one));
}

function sizedOf(installation: Installation, bare: AskedLine): SizedLine {
  const one = withFaults(installation, bare);
  const { line, question, deviceA, plannedDeviceA } = one;
  const smallest = smallestSize(question);
  const chosen = chosenSize(one);
  const areaMm2 = chosen?.areaMm2 ?? (smallest.kind === 'none' ? undefined : smallest.areaMm2);
  return {
    ...one,
    smallest,
    chosen,
    protectiveMm2:
      areaMm2 === undefined || !line.names.includes('PE')
        ? undefined
        : protectiveMm2(question.profile, areaMm2, deviceA ?? plannedDeviceA),
  };
}
