import { type Capability, linesMadeBy } from '../../figures/capability/capability.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { InverterType } from '../../catalogue/inverterType.ts';
import { field, type Known, mapKnown } from '../../values/known.ts';

/** Grid-side charging power on one line: each unit's setting, shared by the lines it stands on. */
export function lineChargeW(
  compiled: CompiledStack,
  type: InverterType,
  capability: Capability,
  line: number,
): Known<number> {
  const units = capability.unitsOnLine[line] ?? 0;
  const made = linesMadeBy(compiled.stack.arrangement ?? 'one-unit', type, capability.unitsOnLine.length);
  return mapKnown(
    field(compiled.stack.gridChargeW, 'stacks', compiled.stack.id, 'gridChargeW'),
    (perUnitW) => (units * perUnitW) / made,
  );
}
