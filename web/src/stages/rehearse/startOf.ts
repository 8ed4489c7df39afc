import { type Design, type Finding, type Known, sentenceOf, type Transfer } from '@bastion/core';
import type { RehearsalVerdict } from './Verdict.tsx';

/**
 * What the first seconds come to: the first thing that goes wrong at the loads or at the battery, or what nobody knows, before that
 * nothing does.
 */
export function startOf(
  design: Design,
  transfer: Known<Transfer>,
  battery: readonly Finding[],
): RehearsalVerdict {
  if (!transfer.known) return { state: 'unknown', words: 'The first seconds are not known.' };
  const { events, missing, gapMs } = transfer.value;
  const bad = events.find(({ isBad }) => isBad);
  if (bad !== undefined) return { state: 'over', words: bad.sentence };
  const over = battery.find(({ state }) => state === 'over');
  if (over !== undefined) return { state: 'over', words: sentenceOf(design, over) };
  const open = battery.find(({ state }) => state === 'unknown');
  if (open !== undefined) return { state: 'unknown', words: sentenceOf(design, open) };
  if (missing.length > 0)
    return {
      state: 'unknown',
      words: `Everything picks up; what takes a gap of ${gapMs} ms is not known of every load.`,
    };
  return {
    state: 'within',
    words: `The gap of ${gapMs} ms is ridden through and everything picks up, within the figures entered.`,
  };
}
