import {
  cableLines,
  conductorSchedule,
  inRegion,
  type Installation,
  type Schedule,
  type ScheduleKind,
  scheduleOf,
  sizeLine,
} from '@bastion/core';
import { useEffect, useMemo, useState } from 'react';
import { catalogueNow } from '../../../state/catalogue.ts';
import { useOpenJob } from '../../../state/job.ts';
import { useLengthUnit } from '../../../state/lengthUnit.ts';

/** One schedule of the open job, made when it is looked at. */
export function useSchedule(kind: ScheduleKind): Schedule {
  const { design, analysis } = useOpenJob();
  const { installation } = analysis;
  const unit = useLengthUnit();
  return useMemo(
    () => inRegion(scheduleOf(kind, { design, catalogue: catalogueNow(), installation }), unit),
    [kind, design, installation, unit],
  );
}

/** How long cables are sized before the page may answer again, ms: less than a picture takes. */
const SLICE_MS = 10;

interface Conductors {
  readonly schedule: Schedule;
  /** Cables that are not sized yet. */
  readonly left: number;
}

const linesOf = (installation: Installation) => {
  const lines = cableLines(installation);
  return lines.known ? lines.value : [];
};

const firstOf = (installation: Installation, count: number): Schedule => {
  const some = new Set(linesOf(installation).slice(0, count));
  return conductorSchedule(installation, (line) => some.has(line));
};

/**
 * The schedule of conductors, its cables sized in slices between which the page answers. Sizes are kept: after an edit only the cables
 * that it touches are sized again, and the rows of before stand until that is done.
 */
export function useConductors(): Conductors {
  const { installation } = useOpenJob().analysis;
  const unit = useLengthUnit();
  const [worked, setWorked] = useState<Conductors>(() => ({
    schedule: firstOf(installation, 0),
    left: linesOf(installation).length,
  }));
  useEffect(() => {
    const lines = linesOf(installation);
    let at = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const goOn = (): void => {
      const until = performance.now() + SLICE_MS;
      for (; at < lines.length && performance.now() < until; at += 1) {
        const line = lines[at];
        if (line !== undefined) sizeLine(installation, line);
      }
      if (at >= lines.length) {
        setWorked({ schedule: conductorSchedule(installation), left: 0 });
        return;
      }
      timer = setTimeout(goOn, 0);
      setWorked(({ schedule }) => ({
        schedule: schedule.rows.length === 0 ? firstOf(installation, at) : schedule,
        left: lines.length - at,
      }));
    };
    timer = setTimeout(goOn, 0);
    return () => clearTimeout(timer);
  }, [installation]);
  return useMemo(() => ({ ...worked, schedule: inRegion(worked.schedule, unit) }), [worked, unit]);
}
