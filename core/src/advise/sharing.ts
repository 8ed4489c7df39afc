import { concerns } from '../checks/finding.ts';
import { modesOf } from '../modes/modes.ts';
import type { EquipmentType } from '../catalogue/schema.ts';
import { bankSharing } from '../checks/bank/bankSharing.ts';
import { LEAD_SIZES_MM2 } from '../codes/leads.ts';
import { compile } from '../installation/compile.ts';
import { diff, type Edit } from '../design/edits.ts';
import type { Bank, Design, Stack } from '../design/schema.ts';
import type { Conductor } from '../design/stackSchema.ts';
import { formatNumber } from '../words/quantity.ts';

/** A change to how a bank is joined, with how far its modules are from the mean before and after. */
export interface SharingFix {
  readonly id: string;
  readonly label: string;
  readonly edits: readonly Edit[];
  /** Undefined: not known. */
  readonly before: number | undefined;
  readonly after: number | undefined;
}

/** A bar to start from where none is described: 0.25 m between places, 200 mm². */
const USUAL_BAR = { lengthM: 0.25, areaMm2: 200 };

/** Departure from the mean in island at the continuous load. */
function departure(design: Design, catalogue: readonly EquipmentType[], stackId: string): number | undefined {
  const installation = compile(design, catalogue);
  const mode = modesOf(installation).find((one) => one.kind === 'island');
  if (mode === undefined) return undefined;
  const found = bankSharing
    .run({ installation, mode })
    .find((one) => concerns(one.subject, { kind: 'stack', id: stackId }));
  return found === undefined || found.state === 'unknown' || found.unit !== 'fraction'
    ? undefined
    : found.value;
}

/** The longest of some leads, in the size of the shared one where it has none of its own; undefined while no length is known. */
function longest(
  shared: Conductor | undefined,
  own: readonly (Conductor | undefined)[],
): (Conductor & { lengthM: number }) | undefined {
  return [shared, ...own]
    .flatMap((lead) => (lead?.lengthM === undefined ? [] : [{ ...shared, ...lead, lengthM: lead.lengthM }]))
    .sort((a, b) => b.lengthM - a.lengthM)[0];
}

interface Change {
  readonly id: string;
  readonly label: string;
  readonly bank?: (bank: Bank) => Bank;
  readonly units?: (units: Stack['units']) => Stack['units'];
}

/** Everything that may help this bank; each is worked out before it is offered. */
function changesFor(stack: Stack, bank: Bank): Change[] {
  const changes: Change[] = [];
  const isChain = bank.joining === 'chain-same-end' || bank.joining === 'chain-diagonal';
  if (bank.joining === 'chain-same-end')
    changes.push({
      id: 'diagonal',
      label: 'Take the chain off at opposite ends: plus at the first module, minus at the last',
      bank: (one) => ({ ...one, joining: 'chain-diagonal' }),
    });
  const ownLeads = bank.modules.some((module) => module.lead !== undefined);
  const most = longest(
    bank.lead,
    bank.modules.map((module) => module.lead),
  );
  if ((ownLeads || bank.joining === 'bars-given') && most !== undefined)
    changes.push({
      id: 'equal-leads',
      label: `Cut all module leads to the longest, ${formatNumber(most.lengthM)} m`,
      bank: (one) => ({
        ...one,
        lead: most,
        ...(one.joining === 'bars-given' ? { joining: 'bars-equal' as const } : {}),
        modules: one.modules.map(({ lead: _lead, ...module }) => module),
      }),
    });
  const size = bank.lead?.areaMm2;
  const next = LEAD_SIZES_MM2.find((area) => size !== undefined && area > size);
  if (bank.lead !== undefined && next !== undefined)
    changes.push({
      id: 'next-size',
      label: `Module leads one size up: ${next} mm²`,
      bank: (one) => (one.lead === undefined ? one : { ...one, lead: { ...one.lead, areaMm2: next } }),
    });
  if (isChain && bank.lead !== undefined)
    changes.push({
      id: 'bars',
      label: `Bars from the first module on (${formatNumber(USUAL_BAR.areaMm2)} mm², ${formatNumber(USUAL_BAR.lengthM)} m between places), leads as they are`,
      bank: (one) => ({ ...one, joining: 'bars-equal', barSegment: one.barSegment ?? USUAL_BAR }),
      // The inverters tap the bars side by side, around the middle.
      units: (units) => {
        const first = Math.max(1, Math.round((bank.modules.length - units.length) / 2) + 1);
        return units.map((unit, index) => ({
          ...unit,
          barPlace: Math.min(bank.modules.length, first + index),
        }));
      },
    });
  const alike = equalInverterLeads(stack, bank);
  return alike === undefined ? changes : [...changes, alike];
}

/** All inverter leads as the longest of them; undefined where none has a lead of its own, or no length is known. */
export function equalInverterLeads(stack: Stack, bank: Bank): Change | undefined {
  const inverterLead = longest(
    bank.inverterLead,
    stack.units.map((unit) => unit.batteryLead),
  );
  if (stack.units.every((unit) => unit.batteryLead === undefined) || inverterLead === undefined)
    return undefined;
  return {
    id: 'equal-inverter-leads',
    label: `Cut all inverter leads to the longest, ${formatNumber(inverterLead.lengthM)} m`,
    bank: (one) => ({ ...one, inverterLead }),
    units: (units) => units.map(({ batteryLead: _lead, ...unit }) => unit),
  };
}

/** A set with a change to its bank and units. */
export const changedStack = (stack: Stack, { bank, units }: Change): Stack => ({
  ...stack,
  ...(bank !== undefined && typeof stack.bank === 'object' ? { bank: bank(stack.bank) } : {}),
  ...(units === undefined ? {} : { units: units(stack.units) }),
});

/** Ways to make the modules of a bank share more evenly, each with its effect, best first. What does not help is left out. */
export function sharingFixes(
  design: Design,
  catalogue: readonly EquipmentType[],
  stackId: string,
): SharingFix[] {
  const stack = design.stacks.find((one) => one.id === stackId);
  if (stack === undefined || typeof stack.bank !== 'object') return [];
  const before = departure(design, catalogue, stackId);
  return changesFor(stack, stack.bank)
    .map((change): SharingFix => {
      const next = {
        ...design,
        stacks: design.stacks.map((one) => (one.id === stackId ? changedStack(one, change) : one)),
      };
      const { id, label } = change;
      return { id, label, edits: diff(design, next), before, after: departure(next, catalogue, stackId) };
    })
    .filter(({ before: now, after }) => after !== undefined && (now === undefined || after < now))
    .sort((a, b) => (a.after ?? Infinity) - (b.after ?? Infinity));
}
