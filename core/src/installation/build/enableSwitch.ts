import type { CompiledStack } from '../installation.ts';
import type { Given } from './given.ts';
import type { Laying } from './laying.ts';
import { statedDevice } from './lines.ts';
import { endOf, hostOf, pinsOfSet } from './links.ts';

const hasInput = ({ type }: CompiledStack): boolean =>
  type.known && type.value.enableInput !== undefined && type.value.enableInput !== 'none';

/**
 * The switch at the enable input of a set, with the two cores to the unit that speaks for it: laid where the type has such an input, and
 * where somebody has listed a switch. It stands in no line: it stops the inverters and parts nothing.
 */
export function layEnableSwitches(laying: Laying, { design, stacks, find }: Given): void {
  for (const compiled of stacks) {
    const stackId = compiled.stack.id;
    const stated = statedDevice(design.devices, 'enable-switch', { stackId }, find);
    if (stated.device === undefined && !hasInput(compiled)) continue;
    const part = laying.part({
      id: `enable ${stackId}`,
      kind: 'device',
      label: `enable switch of ${compiled.stack.name}`,
      from: stated.from,
      role: 'enable-switch',
      stackId,
      fitted: stated.fitted,
    });
    if (stated.fitted.known && stated.fitted.value === 'none') continue;
    laying.links.push({
      id: `enable ${stackId}`,
      kind: 'dry-contact',
      a: endOf(hostOf(compiled), 'enable', pinsOfSet(compiled)),
      b: { partId: part.id, socket: 'contact' },
      from: stated.from,
    });
  }
}
