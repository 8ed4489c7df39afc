import type { Bank, Conductor, Design, Joining, Module, Unit } from '@bastion/core';
import { put } from '../../../state/put.ts';
import { stackIn } from '../stackEdits.ts';

export const JOINING_WORDS: Record<Joining, string> = {
  'chain-same-end': 'Chain, taken off at one end',
  'chain-diagonal': 'Chain, taken off at opposite ends',
  'bars-equal': 'Bars, equal leads',
  'bars-given': 'Bars, leads one by one',
  'groups-on-bar': 'Short chains on a combiner bar',
};

export type LeadField = 'lead' | 'groupLead' | 'barSegment' | 'inverterLead';

/** Sets one figure of a lead. The other stays as it is, not known until it is typed. */
export function withFigure(
  lead: Conductor | undefined,
  key: keyof Conductor,
  value: number | undefined,
): Conductor | undefined {
  const next: Conductor = { ...lead };
  put(next, key, value);
  return Object.keys(next).length === 0 ? undefined : next;
}

export function bankIn(draft: Design, stackId: string): Bank | undefined {
  const bank = stackIn(draft, stackId)?.bank;
  return typeof bank === 'object' ? bank : undefined;
}

export const moduleIn = (draft: Design, stackId: string, moduleId: string): Module | undefined =>
  bankIn(draft, stackId)?.modules.find((one) => one.id === moduleId);

export const unitIn = (draft: Design, stackId: string, unitId: string): Unit | undefined =>
  stackIn(draft, stackId)?.units.find((one) => one.id === unitId);

/** Where the inverters tap the bars is not known until somebody says it. */
export function setJoining(draft: Design, stackId: string, joining: Joining | undefined): void {
  const bank = bankIn(draft, stackId);
  if (bank !== undefined) put(bank, 'joining', joining);
}
