import { wholePower } from '../values/power.ts';
import type { Symptom } from '../procedure/plainSuspects.ts';
import { heardIn } from './siteBus.ts';
import type { SitePlan, SiteSet } from './siteTypes.ts';
import { mismatchOf } from './siteSet.ts';
import type { SetState, SiteState } from './siteState.ts';

/** What a set reports, one bit each, in our own words; with the symptom that the fault finder starts from. */
export const SITE_MESSAGES = [
  { id: 'battery-comms-lost', words: 'Battery not heard', symptom: 'battery-comms-lost' },
  { id: 'modules-missing', words: 'Fewer modules than are joined', symptom: 'battery-comms-lost' },
  { id: 'unit-lost', words: 'A unit of the set is missing', symptom: 'unit-lost' },
  {
    id: 'configuration-mismatch',
    words: 'Settings of the units do not fit each other',
    symptom: 'configuration-mismatch',
  },
  { id: 'overloaded', words: 'More asked for than it gives', symptom: 'trips-on-start' },
  { id: 'battery-empty', words: 'The battery is empty', symptom: undefined },
  { id: 'module-off', words: 'A module took itself off the bank', symptom: 'sharing-bad' },
  { id: 'no-source', words: 'No grid and no generator at its port', symptom: undefined },
  { id: 'no-island', words: 'It may not make an island', symptom: 'no-island' },
  { id: 'clock-unset', words: 'Date and time are not set', symptom: 'clock-lost' },
  { id: 'string-reversed', words: 'A string is reversed or missing', symptom: undefined },
] as const satisfies readonly { id: string; words: string; symptom: Symptom | undefined }[];
export type SiteMessage = (typeof SITE_MESSAGES)[number]['id'];

const isReversed = ({ faults, sun }: SiteState, set: SiteSet): boolean =>
  sun > 0 &&
  faults.some(({ kind, at }) => kind === 'polarity-swapped' && set.arrays.some(({ id }) => id === at));

/** What a set reports now. A set with no unit on reports nothing. */
export function messagesOf(
  plan: SitePlan,
  state: SiteState,
  set: SiteSet,
  now: SetState,
): readonly SiteMessage[] {
  if (!now.units.some(({ isOn }) => isOn) && now.phase !== 'tripped') return [];
  const heard = heardIn(plan, set, state.faults);
  const found: SiteMessage[] = [];
  if (set.isClosedLoop && set.modules.length > 0) {
    if (heard.modules.size === 0 || !now.isBatteryClosed) found.push('battery-comms-lost');
    else if (heard.modules.size < set.modules.length) found.push('modules-missing');
  }
  const present = set.units.filter(
    ({ unit }, index) => heard.units.has(unit.id) && now.units[index]?.isOn === true,
  );
  if (present.length > 0 && present.length < set.units.length) found.push('unit-lost');
  if (mismatchOf(set, now, heard) !== undefined) found.push('configuration-mismatch');
  if (now.overload > 0) found.push('overloaded');
  if (now.phase === 'empty') found.push('battery-empty');
  if (now.modules.some(({ isJoined }) => !isJoined)) found.push('module-off');
  if (now.phase === 'island' || now.phase === 'dark' || now.phase === 'empty') found.push('no-source');
  if (now.phase === 'dark') found.push('no-island');
  if (!now.settings.isClockSet) found.push('clock-unset');
  if (isReversed(state, set)) found.push('string-reversed');
  return found;
}

/** The same as one number, a bit each. */
export function messageBits(messages: readonly SiteMessage[]): number {
  return SITE_MESSAGES.reduce(
    (bits, { id }, bit) => (messages.includes(id) ? bits + wholePower(2, bit) : bits),
    0,
  );
}

export const messagesOfBits = (bits: number): readonly (typeof SITE_MESSAGES)[number][] =>
  SITE_MESSAGES.filter((_, bit) => Math.floor(bits / wholePower(2, bit)) % 2 === 1);
