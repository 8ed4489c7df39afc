import type { Capability } from '../../compile/capability.ts';
import type { CompiledStack } from '../../compile/installation.ts';
import type { InverterType } from '../../catalogue/schema.ts';
import { field, type Known, mapKnown } from '../../design/known.ts';

/** Grid-side charging power on one line: each unit's setting, shared by the lines it stands on. */
export function lineChargeW(
  compiled: CompiledStack,
  type: InverterType,
  capability: Capability,
  line: number,
): Known<number> {
  const units = capability.unitsOnLine[line] ?? 0;
  const made = type.nativeLines === 1 ? 1 : capability.unitsOnLine.length;
  return mapKnown(
    field(compiled.stack.gridChargeW, 'stacks', compiled.stack.id, 'gridChargeW'),
    (perUnitW) => (units * perUnitW) / made,
  );
}
