import { analyse } from '../checks/analyse.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { type ChargeKey, chargeKeyOf } from '../figures/capability/acCharge.ts';
import { largestChargeW } from '../figures/generator/largestCharge.ts';
import { diff } from '../design/edits.ts';
import type { Design } from '../design/schema.ts';
import { formatQuantity } from '../words/quantity.ts';
import { figuresOf } from './figures.ts';
import { makeProposal } from './makeProposal.ts';
import type { Advice, Proposal } from './proposal.ts';

const SIDE: Record<ChargeKey, string> = {
  gridChargeW: 'This is the setting for the grid port: it counts on grid as well.',
  generatorChargeW: 'Charging from the grid has a setting of its own and stays as it is.',
};

/** The largest charging power from a generator that keeps every limit it can break, as a proposal. */
export function adviseCharger(design: Design, catalogue: readonly EquipmentType[]): Advice {
  const analysis = analyse(design, catalogue);
  const { installation } = analysis;
  const notes: string[] = [];
  const proposals: Proposal[] = [];
  const before = figuresOf(analysis);
  for (const one of installation.generators) {
    const { generator } = one;
    const compiled = installation.stacks.find(({ stack }) => stack.id === generator.stackId);
    if (compiled === undefined) {
      notes.push(`${generator.name} feeds no stack yet.`);
      continue;
    }
    const found = largestChargeW(one, compiled, installation);
    const { stack } = compiled;
    const key = chargeKeyOf(generator.connection ?? '');
    const unheld =
      'refused' in found || found.notHeld.length === 0
        ? []
        : [`Not looked at, because it is not known: ${found.notHeld.join('; ')}.`];
    if ('refused' in found) notes.push(`${generator.name}: ${found.refused}`);
    else if (found.perUnitW === stack[key])
      notes.push(
        `${stack.name}: ${formatQuantity(found.perUnitW, 'W')} a unit is right for ${generator.name}.`,
        ...unheld,
      );
    else {
      const after: Design = {
        ...design,
        stacks: design.stacks.map((other) =>
          other.id === stack.id ? { ...other, [key]: found.perUnitW } : other,
        ),
      };
      const before1 = stack[key];
      const now = before1 === undefined ? 'not known' : formatQuantity(before1, 'W');
      const next = formatQuantity(found.perUnitW, 'W');
      proposals.push(
        makeProposal(
          'charger',
          `charger-${generator.id}`,
          `${stack.name}: charge with ${next} a unit from ${generator.name}`,
          {
            design,
            after,
            parts: [
              { id: stack.id, label: `Charging of each unit: ${now} to ${next}`, edits: diff(design, after) },
            ],
            notes: [`What sets it: ${found.setBy}.`, ...unheld, SIDE[key]],
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
