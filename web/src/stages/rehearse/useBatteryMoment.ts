import { BATTERY_IN_START, compareFindings, concerns, type Finding } from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';

/** What the limits say of the battery of a set in the first seconds of an island, worst first. */
export function useBatteryMoment(stackId: string): readonly Finding[] {
  const { findings } = useOpenJob().analysis;
  return useMemo(
    () =>
      findings
        .filter(
          ({ check, mode, subject }) =>
            mode === 'island' &&
            BATTERY_IN_START.includes(check) &&
            concerns(subject, { kind: 'stack', id: stackId }),
        )
        .sort(compareFindings),
    [findings, stackId],
  );
}
