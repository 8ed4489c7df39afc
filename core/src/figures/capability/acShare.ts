import { leadOhm } from '../../codes/leads.ts';
import { all, field, type Known, known, unknownAt } from '../../values/known.ts';
import type { Unit } from '../../installation/facts.ts';
import { unitLines } from '../../installation/unitLines.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import type { Supply } from '../../installation/supply.ts';

/** A unit on one line with the resistance of its AC lead, and its part of what the line carries. */
export interface AcPart {
  readonly unit: Unit;
  /** Counted from 1, as it is labelled. */
  readonly number: number;
  readonly leadOhm: number;
  /** Share of the line's current, 0 to 1; all parts of a line make 1. */
  readonly part: number;
}

/** Units that are paralleled on one line. */
export interface AcGroup {
  readonly line: number;
  readonly parts: readonly AcPart[];
}

const MILLI = 1e-3;

function leadOf(stackId: string, unit: Unit, conductorC: number): Known<number> {
  const path = ['stacks', stackId, 'units', unit.id, 'acLead'];
  if (unit.acLead === undefined) return unknownAt(path);
  const given = all({
    lengthM: field(unit.acLead.lengthM, ...path, 'lengthM'),
    areaMm2: field(unit.acLead.areaMm2, ...path, 'areaMm2'),
  });
  if (!given.known) return given;
  return known(leadOhm(given.value.lengthM, given.value.areaMm2, conductorC));
}

/** Parts of a current through leads in parallel: part_i = g_i / Σg with g = 1 / (R_out + R_lead). With nothing in the way of some, those carry all. */
export function partsThrough(leadsOhm: readonly number[], outputOhm: number): number[] {
  const least = Math.min(...leadsOhm) + outputOhm;
  const siemens = leadsOhm.map((ohm) => (least > 0 ? 1 / (ohm + outputOhm) : ohm === 0 ? 1 : 0));
  const sum = siemens.reduce((total, one) => total + one, 0);
  return siemens.map((one) => one / sum);
}

/**
 * How paralleled units share a line through unequal AC leads. They hold one and the same voltage, so each carries in proportion
 * to its conductance: part_i = g_i / Σg with g = 1 / (R_out + R_lead). Where the type does not state how far its output gives
 * way (`outputMilliohm`), the leads stand alone: the least even case. Undefined where no line has two units.
 */
export function acShare(
  { stack, type }: CompiledStack,
  supply: Supply,
  conductorC: number,
  lostUnitId?: string,
): Known<readonly AcGroup[]> | undefined {
  if (stack.units.length < 2) return undefined;
  const given = all({
    type,
    lines: unitLines(stack, stack.arrangement ?? 'one-unit', supply),
  });
  if (!given.known) return given;
  const missing: (readonly (string | number)[])[] = [];
  const groups: AcGroup[] = [];
  supply.lines.forEach((_, line) => {
    const units = stack.units
      .map((unit, index) => ({ unit, number: index + 1 }))
      .filter(({ unit }) => unit.id !== lostUnitId && given.value.lines.get(unit.id)?.includes(line));
    if (units.length < 2) return;
    const leads = units.map(({ unit }) => leadOf(stack.id, unit, conductorC));
    for (const lead of leads) if (!lead.known) missing.push(...lead.missing);
    const outputOhm = (given.value.type.outputMilliohm ?? 0) * MILLI;
    const ohms = leads.map((lead) => (lead.known ? lead.value : 0));
    const shares = partsThrough(ohms, outputOhm);
    groups.push({
      line,
      parts: units.map((unit, index) => ({
        ...unit,
        leadOhm: ohms[index] ?? 0,
        part: shares[index] ?? 0,
      })),
    });
  });
  if (missing.length > 0) return unknownAt(...missing);
  return groups.length === 0 ? undefined : known(groups);
}
