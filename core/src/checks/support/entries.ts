import type { Body } from '../../catalogue/common.ts';
import type { Passage } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';

/** What is held against the holes of a part. */
export interface EntryTrouble {
  readonly value: number;
  readonly limit: number;
  readonly unit: string;
  readonly does: string;
  readonly and: string;
  readonly source: string;
}

/** The body of the type of a part, where it is an inverter or a module. */
function bodyOf(installation: Installation, partId: string): Body | undefined {
  const part = installation.network.known
    ? installation.network.value.parts.find(({ id }) => id === partId)
    : undefined;
  const compiled = installation.stacks.find(({ stack }) => stack.id === part?.stackId);
  if (compiled === undefined || part === undefined) return undefined;
  if (part.kind === 'inverter') return compiled.type.known ? compiled.type.value.body : undefined;
  const bank = compiled.stack.bank;
  if (part.kind !== 'module' || typeof bank !== 'object') return undefined;
  const module = bank.modules.find(({ id }) => id === part.moduleId);
  return compiled.batteryTypes[module?.batteryTypeId ?? bank.batteryTypeId ?? '']?.body;
}

/**
 * A gland or conduit against the holes of the part it goes into: as many on a side as the type has there, and none wider than they
 * are. Undefined where the type states no holes, or nobody has said where it enters.
 */
export function entryOf(
  installation: Installation,
  { intoId, side, threadMm }: Passage,
  all: readonly Passage[],
): EntryTrouble | undefined {
  if (intoId === undefined || side === undefined) return undefined;
  const entries = bodyOf(installation, intoId)?.entries;
  if (entries === undefined) return undefined;
  const source = 'Holes that the type states on that side.';
  const own = entries.filter((one) => one.side === side);
  const fellows = all.filter((one) => one.intoId === intoId && one.side === side);
  const holes = own.reduce((sum, { count }) => sum + count, 0);
  if (fellows.length > holes)
    return {
      value: fellows.length,
      limit: holes,
      unit: '',
      does: 'is one of',
      and: `on the ${side} of its part, whose holes there are`,
      source,
    };
  const widest = Math.max(...own.map(({ diameterMm }) => diameterMm));
  if (threadMm === undefined) return undefined;
  return {
    value: threadMm,
    limit: widest,
    unit: 'mm',
    does: 'needs a hole of',
    and: `and the widest on the ${side} is`,
    source,
  };
}
