import type { InverterType } from '../../catalogue/inverterType.ts';
import type { CompiledStack, Installation } from '../../installation/installation.ts';
import { all, field, type Known, known, mapKnown } from '../../values/known.ts';
import { type Capability, capabilityWithout, linesMadeBy } from './capability.ts';

/** The setting that holds the charging power: a set at the generator port has its own, one ahead of the grid port is taken for the grid. */
export type ChargeKey = 'gridChargeW' | 'generatorChargeW';

/** Which setting of the units counts with a set connected like this, or on grid. */
export const chargeKeyOf = (connection: string): ChargeKey =>
  connection === 'generator-port' ? 'generatorChargeW' : 'gridChargeW';

/** Share of each unit's charging power that one line gives: the units on the line over the lines that one of them makes. */
export function chargeShareOfLine(
  compiled: CompiledStack,
  type: InverterType,
  capability: Capability,
  line: number,
): number {
  const units = capability.unitsOnLine[line] ?? 0;
  return units / linesMadeBy(compiled.stack.arrangement ?? 'one-unit', type, capability.unitsOnLine.length);
}

/** Charging power that one line gives, W: each unit's setting, shared by the lines it stands on. */
export function lineChargeW(
  compiled: CompiledStack,
  type: InverterType,
  capability: Capability,
  line: number,
  key: ChargeKey,
): Known<number> {
  return mapKnown(
    field(compiled.stack[key], 'stacks', compiled.stack.id, key),
    (perUnitW) => chargeShareOfLine(compiled, type, capability, line) * perUnitW,
  );
}

/** What a whole set draws from the grid to charge on one line, W. */
export function setChargeW(compiled: CompiledStack, line: number, key: ChargeKey): Known<number> {
  const given = all({ type: compiled.type, capability: capabilityWithout(compiled) });
  return given.known ? lineChargeW(compiled, given.value.type, given.value.capability, line, key) : given;
}

/** Grid charging of all sets on one line, W. */
export function gridChargingW({ stacks }: Installation, line: number): Known<number> {
  let sum = 0;
  for (const compiled of stacks) {
    const charge = setChargeW(compiled, line, 'gridChargeW');
    if (!charge.known) return charge;
    sum += charge.value;
  }
  return known(sum);
}
