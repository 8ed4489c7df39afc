import type { CableLine } from '../figures/wiring/cableLines.ts';
import type { Installation } from '../installation/installation.ts';
import { type Known, mapKnown } from '../values/known.ts';
import { type AskedLine, askLine } from './askLine.ts';
import { judgeSize } from './judgeSize.ts';
import { protectiveMm2 } from './protective.ts';
import type { SizeAnswer } from './question.ts';
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

/** The stated size of a cable, tested with what is stated. */
export function chosenSize({ line, question, deviceA }: AskedLine): ChosenSize | undefined {
  if (!line.areaMm2.known) return undefined;
  const areaMm2 = line.areaMm2.value;
  const answers = judgeSize(question, areaMm2).filter(
    ({ test }) => deviceA !== undefined || !OF_DEVICE.has(test),
  );
  return { areaMm2, answers, worst: worstOf(answers) };
}

/** A cable with the smallest size that passes, and the stated one tested; see `askLine` for when there is none. */
export function sizeLine(installation: Installation, line: CableLine): Known<SizedLine> | undefined {
  const asked = askLine(installation, line);
  return (
    asked &&
    mapKnown(asked, (one): SizedLine => {
      const { question, deviceA, plannedDeviceA } = one;
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
    })
  );
}
