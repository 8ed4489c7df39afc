import type { OnWall } from '../../installation/place/wall.ts';
import { type CheckContext, judge, type Measurement } from '../check.ts';
import type { Finding, Subject } from '../finding.ts';

export const wallSubject = (one: OnWall): Subject => ({
  kind: 'place',
  id: one.mounted.id,
  label: one.label,
});

/** Runs a measurement once for each thing on the wall. */
export function eachOnWall(
  check: string,
  context: CheckContext,
  measure: (one: OnWall, wall: readonly OnWall[]) => Measurement | undefined,
): Finding[] {
  const { wall } = context.installation;
  return wall.flatMap((one) => {
    const measured = measure(one, wall);
    return measured === undefined ? [] : [judge(check, context, measured)];
  });
}
