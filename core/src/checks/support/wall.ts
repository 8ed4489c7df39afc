import type { OnWall } from '../../installation/place/wall.ts';
import { type CheckContext, judge, type Measured } from '../check.ts';
import type { Found, Subject } from '../finding.ts';

export const wallSubject = (one: OnWall): Subject => ({
  kind: 'place',
  id: one.mounted.id,
  label: one.label,
});

/** Runs a measurement once for each thing on the wall. */
export function eachOnWall<Key extends string = never>(
  check: string,
  context: CheckContext,
  measure: (one: OnWall, wall: readonly OnWall[]) => Measured<Key> | undefined,
): Found<Key>[] {
  const { wall } = context.installation;
  return wall.flatMap((one) => {
    const measured = measure(one, wall);
    return measured === undefined ? [] : [judge(check, context, measured)];
  });
}
