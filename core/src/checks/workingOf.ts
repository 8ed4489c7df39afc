import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';
import { NO_WORKING } from './check.ts';
import { type Finding, isSameSubject, type Working } from './finding.ts';
import { checkById, type RegisteredFinding } from './registry.ts';

/**
 * How a finding came about: its check is run once more in its mode, and tells. A finding whose mode or subject the installation no
 * longer has gets an empty working.
 */
export function workingOf(finding: RegisteredFinding, installation: Installation): Working {
  const mode = modesOf(installation).find((one) => one.id === finding.mode);
  if (mode === undefined) return NO_WORKING;
  const workings = new Map<Finding, () => Working>();
  checkById(finding.check).run({ installation, mode, workings });
  const same = [...workings].filter(([one]) => isSameSubject(one.subject, finding.subject));
  const [, working] = same.find(([one]) => one.value === finding.value) ?? same[0] ?? [];
  return working?.() ?? NO_WORKING;
}
