import { acceptanceOf } from '../checks/accepted.ts';
import { type CheckId, checkById } from '../checks/registry.ts';
import { findingsOf } from '../checks/runChecks.ts';
import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';
import { remember } from '../values/remember.ts';

/** Checks of cables and devices whose limits a licensed person can take responsibility for. */
const WIRING: readonly CheckId[] = [
  'wiring.battery-lead',
  'wiring.breaking',
  'wiring.conductor',
  'wiring.drop',
  'wiring.earthing',
  'wiring.order',
  'wiring.ports',
  'wiring.protection',
  'wiring.rating',
  'wiring.terminals',
];

/**
 * What a licensed person has overridden, by cable or device: who and why, for as long as the figures are no worse than those that were
 * accepted. Checks are run only where somebody has accepted one of theirs.
 */
export const overridesOf = remember((installation: Installation): ReadonlyMap<string, string> => {
  const found = new Map<string, string>();
  const accepted = new Set(installation.accepted.map(({ check }) => check));
  const [mode] = modesOf(installation);
  if (mode === undefined) return found;
  for (const id of WIRING) {
    if (!accepted.has(id)) continue;
    for (const finding of findingsOf(checkById(id), { installation, mode })) {
      const one = acceptanceOf(installation, finding);
      if (one === undefined) continue;
      const before = found.get(finding.subject.id);
      const words = `${checkById(id).title.toLowerCase()} overridden by ${one.by}: ${one.reason}`;
      found.set(finding.subject.id, before === undefined ? words : `${before}; ${words}`);
    }
  }
  return found;
});
