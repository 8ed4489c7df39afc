import { type CheckId, compareFindings, concerns, type Finding } from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../state/job.ts';

/** What the battery has to bear in the first seconds: its current and voltage as it is solved, against trip, device and inverter. */
const CHECKS: readonly CheckId[] = [
  'bank.deliverable',
  'bank.surge-current',
  'bank.breaker-surge',
  'bank.sag',
  'bank.inverter-surge',
  'bank.module-surge',
];

/** What the limits say of the battery of a set in the first seconds of an island, worst first. */
export function useBatteryMoment(stackId: string): readonly Finding[] {
  const { findings } = useOpenJob().analysis;
  return useMemo(
    () =>
      findings
        .filter(
          ({ check, mode, subject }) =>
            mode === 'island' && CHECKS.includes(check) && concerns(subject, { kind: 'stack', id: stackId }),
        )
        .sort(compareFindings),
    [findings, stackId],
  );
}
