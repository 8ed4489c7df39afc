import type { Known, Transfer } from '@bastion/core';
import type { RehearsalVerdict } from './Verdict.tsx';

/** What the first seconds come to: the first thing that goes wrong, or what nobody knows, before that nothing does. */
export function startOf(transfer: Known<Transfer>): RehearsalVerdict {
  if (!transfer.known) return { state: 'unknown', words: 'The first seconds are not known.' };
  const { events, missing, gapMs } = transfer.value;
  const bad = events.find(({ isBad }) => isBad);
  if (bad !== undefined) return { state: 'over', words: bad.sentence };
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
