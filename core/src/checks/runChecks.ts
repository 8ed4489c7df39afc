import type { Installation } from '../compile/installation.ts';
import { CHECKS } from './registry.ts';
import { compareFindings, type Finding } from './finding.ts';

/** All findings of all modes that the design makes possible, worst first. */
export function runChecks(installation: Installation): Finding[] {
  const findings: Finding[] = [];
  for (const mode of installation.modes) {
    // One context for all checks of a mode: what several of them need is worked out once.
    const context = { installation, mode };
    for (const check of CHECKS) {
      if (check.modes.includes(mode.kind)) findings.push(...check.run(context));
    }
  }
  return findings.sort(compareFindings);
}
