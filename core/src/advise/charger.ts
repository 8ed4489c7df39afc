import { deratedVaOf } from '../figures/generator/rating.ts';
import { generatorBoard } from '../figures/loads/boards.ts';
import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { capabilityWithout, linesMadeBy } from '../figures/capability/capability.ts';
import { generatorLines } from '../installation/generatorLines.ts';
import type { CompiledGenerator, CompiledStack, Installation } from '../installation/installation.ts';
import { all } from '../values/known.ts';
import { diff } from '../design/edits.ts';
import type { Design } from '../design/schema.ts';
import { ZERO } from '../network/complex.ts';
import { formatQuantity } from '../words/quantity.ts';
import { figuresOf } from './figures.ts';
import { makeProposal } from './makeProposal.ts';
import type { Advice, Proposal } from './proposal.ts';

/** Settings are rounded down to what a menu offers, W. */
const STEP_W = 50;

/** Charging power of each unit that leaves the loading target standing on every line the set reaches, or why there is none. */
function largestChargeW(
  set: CompiledGenerator,
  compiled: CompiledStack,
  installation: Installation,
): number | string {
  const { generator, type } = set;
  const given = all({
    type,
    deratedVa: deratedVaOf(set),
    inverter: compiled.type,
    supply: installation.supply,
    board: generatorBoard(compiled),
    capability: capabilityWithout(compiled),
  });
  if (!given.known) return `${generator.name}: not everything is known that a setting follows from.`;
  const { supply, board, inverter, capability } = given.value;
  if (board.continuous.missing.length > 0)
    return `${generator.name}: the load is not known in full, so no setting can be worked out.`;
  const limitVa =
    (given.value.deratedVa / given.value.type.lines) * installation.defaults.generatorLoading.value;
  const made = linesMadeBy(compiled.stack.arrangement ?? 'one-unit', inverter, supply.lines.length);
  const reached = generatorLines(generator, given.value.type, supply);
  if (!reached.known) return `${generator.name}: say which line it supplies.`;
  const perUnit = reached.value.map((line) => {
    const { re, im } = board.continuous.knownPart[line] ?? ZERO;
    const units = capability.unitsOnLine[line] ?? 0;
    if (units === 0) return Infinity;
    // √((P + P_ch)² + Q²) = S, solved for P_ch.
    return limitVa > Math.abs(im) ? ((Math.sqrt(limitVa * limitVa - im * im) - re) * made) / units : -1;
  });
  const least = Math.min(...perUnit);
  if (least < 0)
    return `${generator.name}: the load alone is more than the set should give on a line; shed some of it before charging.`;
  return Number.isFinite(least) ? Math.floor(least / STEP_W) * STEP_W : 0;
}

/** The largest charging power from a generator that keeps load and charging at its loading target, as a proposal. */
export function adviseCharger(design: Design, catalogue: readonly EquipmentType[]): Advice {
  const analysis = analyse(design, catalogue);
  const { installation } = analysis;
  const notes: string[] = [];
  const proposals: Proposal[] = [];
  const before = figuresOf(analysis);
  for (const one of installation.generators) {
    const compiled = installation.stacks.find(({ stack }) => stack.id === one.generator.stackId);
    if (compiled === undefined) {
      notes.push(`${one.generator.name} feeds no stack yet.`);
      continue;
    }
    const found = largestChargeW(one, compiled, installation);
    const { stack } = compiled;
    if (typeof found === 'string') notes.push(found);
    else if (found === stack.gridChargeW)
      notes.push(`${stack.name}: ${formatQuantity(found, 'W')} a unit is right for ${one.generator.name}.`);
    else {
      const after: Design = {
        ...design,
        stacks: design.stacks.map((other) =>
          other.id === stack.id ? { ...other, gridChargeW: found } : other,
        ),
      };
      const now = stack.gridChargeW === undefined ? 'not known' : formatQuantity(stack.gridChargeW, 'W');
      proposals.push(
        makeProposal(
          'charger',
          `charger-${one.generator.id}`,
          `${stack.name}: charge with ${formatQuantity(found, 'W')} a unit from ${one.generator.name}`,
          {
            design,
            after,
            parts: [
              {
                id: stack.id,
                label: `Charging of each unit: ${now} to ${formatQuantity(found, 'W')}`,
                edits: diff(design, after),
              },
            ],
            notes: [
              `Load and charging then stay at ${formatQuantity(installation.defaults.generatorLoading.value, 'fraction')} of the derated set on its fullest line.`,
              'The same setting counts on the grid, where the inverter has one for both.',
            ],
            before,
          },
          catalogue,
        ),
      );
    }
  }
  if (installation.generators.length === 0) notes.push('There is no generator to charge from.');
  return { kind: 'charger', proposals, notes };
}
