import { judgeProtective, type ProtectiveAnswer } from './protective.ts';
import type { SizedLine } from './sizeLine.ts';

/**
 * The protective conductor that is stated of a cable of stated size, judged; undefined while either is not. A thinner one than the table
 * wants may pass by the faults of a circuit, where every source is known; of other cables the table counts.
 */
export function judgeEarth({
  line,
  question,
  chosen,
  protectiveMm2,
}: SizedLine): ProtectiveAnswer | undefined {
  const statedMm2 = line.cable?.protectiveMm2;
  if (statedMm2 === undefined || chosen === undefined) return undefined;
  const isEveryFaultKnown = line.circuit !== undefined && question.faultsMissing.length === 0;
  return judgeProtective(question, chosen.areaMm2, statedMm2, protectiveMm2, isEveryFaultKnown);
}
