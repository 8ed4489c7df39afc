import type { Board } from '../../figures/loads/board.ts';
import type { Known } from '../../values/known.ts';
import { generatorBoard, islandBoard, onGridBoard } from '../../figures/loads/boards.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { type Capability, capabilityWithout } from '../../figures/capability/capability.ts';
import { isFedIn } from '../../installation/fedSets.ts';
import type { Line } from '../../values/quantities.ts';
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
  about: [
    { kind: 'stack', id: compiled.stack.id },
    { kind: 'supply-line', id: line },
  ],
});

export const bankSubject = (compiled: CompiledStack): Subject => ({
  kind: 'bank',
  id: compiled.stack.id,
  label: `Battery bank of ${compiled.stack.name}`,
  about: [{ kind: 'stack', id: compiled.stack.id }],
});

/** The stacks a mode is about: in `unit-lost` only the one that lost a unit, while a generator runs those that it feeds. */
export function stacksInMode(context: CheckContext): readonly CompiledStack[] {
  const { lostUnit, kind } = context.mode;
  const { stacks, generators } = context.installation;
  const connected = generators.map(({ generator }) => generator);
  return lostUnit === undefined
    ? stacks.filter(({ stack }) => isFedIn(kind, stack.id, connected))
    : stacks.filter((compiled) => compiled.stack.id === lostUnit.stackId);
}

/** What a stack can carry in this mode. */
export function capabilityInMode(context: CheckContext, compiled: CompiledStack): Known<Capability> {
  return capabilityWithout(compiled, context.mode.lostUnit?.unitId);
}

/** What draws through a stack in this mode: everything behind it on grid, less in island, more while a generator runs. */
export function boardInMode({ mode }: CheckContext, compiled: CompiledStack): Known<Board> {
  switch (mode.kind) {
    case 'on-grid':
    case 'maintenance-bypass':
      return onGridBoard(compiled);
    case 'generator-port':
    case 'transfer-switch':
    case 'generator-inlet':
      return generatorBoard(compiled);
    case 'island':
    case 'unit-lost':
      return islandBoard(compiled);
  }
}
