import type { Bank, Conductor, Design, Joining, Module, Unit } from '@bastion/core';
import { put } from '../../state/put.ts';
import { stackIn } from './stackEdits.ts';

export const JOINING_WORDS: Record<Joining, string> = {
  'chain-same-end': 'Chain, taken off at one end',
  'chain-diagonal': 'Chain, taken off at opposite ends',
  'bars-equal': 'Bars, equal leads',
  'bars-given': 'Bars, leads one by one',
  'groups-on-bar': 'Short chains on a combiner bar',
};

export type LeadField = 'lead' | 'groupLead' | 'barSegment' | 'inverterLead';

/** Sets one figure of a lead. The other is not known until it is typed, so a lead that has only one of them is not written. */
export function withFigure(
  lead: Conductor | undefined,
  key: keyof Conductor,
  value: number | undefined,
  other: Conductor | undefined,
): Conductor | undefined {
  const base = lead ?? other;
  if (value === undefined) return undefined;
  if (base !== undefined) return { ...base, [key]: value };
  // The usual first guess, shown and to be checked: half a metre of 35 mm².
  return { lengthM: 0.5, areaMm2: 35, [key]: value };
}

export function bankIn(draft: Design, stackId: string): Bank | undefined {
  const bank = stackIn(draft, stackId)?.bank;
  return typeof bank === 'object' ? bank : undefined;
}

export const moduleIn = (draft: Design, stackId: string, moduleId: string): Module | undefined =>
  bankIn(draft, stackId)?.modules.find((one) => one.id === moduleId);

export const unitIn = (draft: Design, stackId: string, unitId: string): Unit | undefined =>
  stackIn(draft, stackId)?.units.find((one) => one.id === unitId);

/** Where the inverters tap the bars, when the joining asks for it and nobody has said: side by side around the middle. */
export function setJoining(draft: Design, stackId: string, joining: Joining | undefined): void {
  const stack = stackIn(draft, stackId);
  const bank = bankIn(draft, stackId);
  if (stack === undefined || bank === undefined) return;
  put(bank, 'joining', joining);
  if (joining === undefined || joining.startsWith('chain')) return;
  const size = joining === 'groups-on-bar' ? (bank.groupSize ?? 2) : 1;
  const places = Math.max(1, Math.ceil(bank.modules.length / size));
  const first = Math.max(1, Math.round((places - stack.units.length) / 2) + 1);
  stack.units.forEach((unit, index) => {
    if (unit.barPlace === undefined || unit.barPlace > places)
      unit.barPlace = Math.min(places, first + index);
  });
}
