import type { CompiledStack } from '../../compile/installation.ts';
import type { Capability } from '../../compile/capability.ts';
import type { Line } from '../../design/quantities.ts';
import type { CheckContext } from '../check.ts';
import type { Subject } from '../finding.ts';

export const stackSubject = (compiled: CompiledStack): Subject => ({
  kind: 'stack',
  id: compiled.stack.id,
  label: compiled.stack.name,
});

export const lineSubject = (compiled: CompiledStack, line: Line): Subject => ({
  kind: 'line',
  id: `${compiled.stack.id}/${line}`,
  label: `${compiled.stack.name} ${line}`,
});

export const bankSubject = (compiled: CompiledStack): Subject => ({
  kind: 'bank',
  id: compiled.stack.id,
  label: `Battery bank of ${compiled.stack.name}`,
});

/** The stacks a mode is about: in `unit-lost`, only the one that lost a unit. */
export function stacksInMode(context: CheckContext): readonly CompiledStack[] {
  const { lostUnit } = context.mode;
  const { stacks } = context.installation;
  return lostUnit === undefined
    ? stacks
    : stacks.filter((compiled) => compiled.stack.id === lostUnit.stackId);
}

/** What a stack can carry in this mode. */
export function capabilityInMode(
  context: CheckContext,
  compiled: CompiledStack,
): ReturnType<CompiledStack['capabilityWithout']> {
  return compiled.capabilityWithout(context.mode.lostUnit?.unitId);
}

/** Whether the whole set has stopped in this mode: then battery figures have no meaning, and the load checks say it. */
export const hasStopped = (capability: Capability): boolean => capability.stopped;

/** What draws through a stack in this mode: everything behind it on grid, less in island, more while a generator runs. */
export function boardInMode({ mode }: CheckContext, compiled: CompiledStack): CompiledStack['board'] {
  switch (mode.kind) {
    case 'on-grid':
    case 'maintenance-bypass':
      return compiled.onGridBoard;
    case 'generator-port':
    case 'transfer-switch':
      return compiled.generatorBoard;
    case 'island':
    case 'unit-lost':
      return compiled.board;
  }
}
