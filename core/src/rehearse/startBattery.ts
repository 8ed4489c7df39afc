import type { CheckId, RegisteredFinding } from '../checks/registry.ts';
import { checkById } from '../checks/registry.ts';
import { findingsOf } from '../checks/runChecks.ts';
import { concerns } from '../checks/finding.ts';
import type { Circuit, Item } from '../installation/facts.ts';
import type { Installation } from '../installation/installation.ts';
import { modesOf } from '../modes/modes.ts';

/** What the battery has to bear in a start: its current and voltage as it is solved, against trip, device and inverter. */
export const BATTERY_IN_START: readonly CheckId[] = [
  'bank.deliverable',
  'bank.surge-current',
  'bank.breaker-surge',
  'bank.sag',
  'bank.inverter-surge',
  'bank.module-surge',
];

/** An item that runs on and does not start. */
function running({
  startMultiple: _multiple,
  lockedRotorA: _locked,
  codeLetter: _letter,
  ...item
}: Item): Item {
  return { ...item, startClass: 'steady' };
}

/** The installation with one start alone in it: everything else runs as it did. */
function withOneStart(installation: Installation, key: string): Installation {
  const only = (circuit: Circuit): Circuit => ({
    ...circuit,
    items: circuit.items.map((item) => (`${circuit.id}/${item.id}` === key ? item : running(item))),
  });
  const circuits = installation.circuits.map(only);
  const byId = new Map(circuits.map((circuit) => [circuit.id, circuit]));
  return {
    ...installation,
    circuits,
    stacks: installation.stacks.map((compiled) => ({
      ...compiled,
      circuits: compiled.circuits.map((circuit) => byId.get(circuit.id) ?? circuit),
    })),
  };
}

/**
 * What the battery of a set comes to while one item starts: the checks of the largest start, made for this one. They are the limits' own,
 * so that where this start is the largest both say the same.
 *
 * @param key circuit/item
 */
export function batteryInStart(
  installation: Installation,
  stackId: string,
  key: string,
): readonly RegisteredFinding[] {
  const one = withOneStart(installation, key);
  const mode = modesOf(one).find(({ kind }) => kind === 'island');
  if (mode === undefined) return [];
  return BATTERY_IN_START.flatMap((id) => findingsOf(checkById(id), { installation: one, mode })).filter(
    ({ subject }) => concerns(subject, { kind: 'stack', id: stackId }),
  );
}
