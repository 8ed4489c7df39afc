import type { Installation } from '../installation/installation.ts';
import { type Mode, modesOf } from '../modes/modes.ts';
import type { Check, CheckContext } from './check.ts';
import { compareFindings } from './finding.ts';
import { CHECKS, isRegistered, type RegisteredFinding } from './registry.ts';

/** Whether a check looks at a mode. What looks once does so in the first mode there is. */
export const appliesIn = (check: Check, installation: Installation, mode: Mode): boolean =>
  check.modes === 'once' ? modesOf(installation)[0]?.id === mode.id : check.modes.includes(mode.kind);

/** What one check finds in one mode. */
export const findingsOf = (check: Check, context: CheckContext): RegisteredFinding[] =>
  appliesIn(check, context.installation, context.mode) ? check.run(context).filter(isRegistered) : [];

/** Modes whose findings are limits: losing a unit is one only where the job says that it must be survived. */
const areLimits = ({ site }: Installation, mode: Mode): boolean =>
  mode.kind !== 'unit-lost' || site.surviveUnitLoss === 'yes';

/** The modes whose findings are limits. */
export const limitModes = (installation: Installation): readonly Mode[] =>
  modesOf(installation).filter((mode) => areLimits(installation, mode));

/** All findings of all modes that the installation makes possible, worst first. */
export function runChecks(installation: Installation): RegisteredFinding[] {
  const findings: RegisteredFinding[] = [];
  for (const mode of limitModes(installation)) {
    // One context for all checks of a mode: what several of them need is worked out once.
    const context = { installation, mode };
    for (const check of CHECKS) findings.push(...findingsOf(check, context));
  }
  return findings.sort(compareFindings);
}
