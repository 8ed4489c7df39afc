import { type Arrangement, type Design, type Line, lineOfUnit, type Stack } from '@bastion/core';
import { newId } from '../../state/job.ts';
import { put } from '../../state/put.ts';

/** A stack with one unit and nothing else said. Backup outputs that nothing feeds yet are fed by it. */
export function addStack(draft: Design): void {
  const id = newId('s');
  const name = draft.stacks.length === 0 ? 'Stack' : `Stack ${draft.stacks.length + 1}`;
  draft.stacks.push({ id, name, units: [{ id: newId('u') }] });
  for (const partition of draft.partitions) {
    if (partition.kind === 'backup' && partition.stackId === undefined) partition.stackId = id;
  }
}

export const stackIn = (draft: Design, id: string): Stack | undefined =>
  draft.stacks.find((one) => one.id === id);

/**
 * Changes how many units there are: new ones at the end, or the last ones gone. Lines are dealt out anew only where a unit
 * has none, so that what a person chose stays.
 */
export function setUnitCount(stack: Stack, count: number, lines: readonly Line[]): void {
  if (!Number.isInteger(count) || count < 1 || count > 64) return;
  while (stack.units.length > count) stack.units.pop();
  while (stack.units.length < count) stack.units.push({ id: newId('u') });
  dealLines(stack, lines, false);
}

export function setArrangement(
  stack: Stack,
  arrangement: Arrangement | undefined,
  lines: readonly Line[],
): void {
  put(stack, 'arrangement', arrangement);
  dealLines(stack, lines, true);
}

function dealLines(stack: Stack, lines: readonly Line[], anew: boolean): void {
  const fresh = anew || stack.units.some((unit) => unit.line === undefined);
  if (!fresh) return;
  stack.units.forEach((unit, index) =>
    put(unit, 'line', lineOfUnit(stack.arrangement, index, stack.units.length, lines)),
  );
}

export function setModuleCount(stack: Stack, count: number): void {
  if (
    !Number.isInteger(count) ||
    count < 1 ||
    count > 512 ||
    stack.bank === undefined ||
    stack.bank === 'none'
  )
    return;
  const { modules } = stack.bank;
  while (modules.length > count) modules.pop();
  while (modules.length < count) modules.push({ id: newId('m') });
}
