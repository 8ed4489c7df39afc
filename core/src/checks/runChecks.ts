import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';
import { compareFindings } from './finding.ts';
import { CHECKS, isRegistered, type RegisteredFinding } from './registry.ts';
import type { Check, CheckContext } from './check.ts';

/** What one check finds in one mode. */
export const findingsOf = (check: Check, context: CheckContext): RegisteredFinding[] =>
  check.modes.includes(context.mode.kind) ? check.run(context).filter(isRegistered) : [];

/** All findings of all modes that the installation makes possible, worst first. */
export function runChecks(installation: Installation): RegisteredFinding[] {
  const findings: RegisteredFinding[] = [];
  for (const mode of modesOf(installation)) {
    // One context for all checks of a mode: what several of them need is worked out once.
    const context = { installation, mode };
    for (const check of CHECKS) findings.push(...findingsOf(check, context));
  }
  return findings.sort(compareFindings);
}
