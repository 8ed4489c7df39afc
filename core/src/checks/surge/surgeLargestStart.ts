import { worstLevel } from '../../network/overload.ts';
import type { StartOnLine } from '../../figures/loads/surges.ts';
import { type Check, checkOf } from '../check.ts';
import { eachSurgePlace, surgeMeasurement } from '../support/surge.ts';

/** Each start alone on top of the others' expected peak; the one with the least headroom is reported. */
export const surgeLargestStart: Check<'surge.largest-start'> = checkOf({
  id: 'surge.largest-start',
  title: 'Largest start',
  family: 'surge',
  modes: ['island', 'unit-lost'],
  sentences: {
    over: '{{subject}}: starting {{label}} takes {{value}} for {{needed}}; {{limit}} is allowed for that long: over by {{margin}}.',
    tight:
      '{{subject}}: starting {{label}} takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    within:
      '{{subject}}: starting {{label}} takes {{value}} for {{needed}} of {{limit}} allowed: {{margin}} left.',
    unknown: '{{subject}}: the largest start is not known yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachSurgePlace(surgeLargestStart.id, context, (place) => {
      const { missing } = place.one.board.starts;
      const ratio = (start: StartOnLine): number => {
        const worst = worstLevel(start.steps, place.one.type.overloadCurve, place.ratedVa);
        if (worst === undefined) return 0;
        return worst.allowedVa === 0 ? worst.va : worst.va / worst.allowedVa;
      };
      let hardest: StartOnLine | undefined;
      let hardestRatio = -1;
      for (const start of place.starts) {
        const its = ratio(start);
        if (its > hardestRatio) {
          hardest = start;
          hardestRatio = its;
        }
      }
      if (hardest === undefined && missing.length === 0) return undefined;
      const label = hardest?.label ?? 'nothing';
      return surgeMeasurement(context, place, hardest?.steps ?? [], label, missing, [
        `Of all starts here, ${label} leaves the least headroom.`,
      ]);
    }),
});
