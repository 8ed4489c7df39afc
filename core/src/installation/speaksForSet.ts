import type { Unit } from './facts.ts';
import type { CompiledStack, Installation } from './installation.ts';

/** Whether a unit reports for its set: the host, or the first, unless a controller does it. */
export function speaksForSet(
  { controllers }: Pick<Installation, 'controllers'>,
  { stack }: Pick<CompiledStack, 'stack'>,
  unit: Unit,
): boolean {
  if (controllers.some(({ controller }) => controller.stackIds.includes(stack.id))) return false;
  return unit.id === (stack.hostUnitId ?? stack.units[0]?.id);
}
