import { SUPPLY_LINES } from './references.ts';
import type { Design, SupplyKind } from './schema.ts';

/**
 * Changes the supply. Circuits and units on lines that the new supply does not have lose their line: it becomes not
 * known, and shows as such, instead of pointing at a line that is not there.
 *
 * @returns the new design, and how many circuits and units lost their line
 */
export function chooseSupply(
  design: Design,
  supply: SupplyKind | undefined,
): { design: Design; lost: number } {
  const { supply: _before, ...site } = design.site;
  const lines = supply === undefined ? undefined : SUPPLY_LINES[supply];
  let lost = 0;
  const circuits = design.circuits.map((circuit) => {
    if (lines === undefined || (circuit.lines ?? []).every((line) => lines.includes(line))) return circuit;
    lost += 1;
    const { lines: _gone, ...rest } = circuit;
    return rest;
  });
  const stacks = design.stacks.map((stack) => ({
    ...stack,
    units: stack.units.map((unit) => {
      if (lines === undefined || unit.line === undefined || lines.includes(unit.line)) return unit;
      lost += 1;
      const { line: _gone, ...rest } = unit;
      return rest;
    }),
  }));
  return {
    design: { ...design, site: supply === undefined ? site : { ...site, supply }, circuits, stacks },
    lost,
  };
}
