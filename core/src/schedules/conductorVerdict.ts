import type { Installation } from '../installation/installation.ts';
import { awaitsRating } from '../sizing/askLine.ts';
import type { SizeTest } from '../sizing/question.ts';
import type { SizedLine } from '../sizing/sizeLine.ts';
import { describePlaces } from '../words/places.ts';
import type { RowState } from './table.ts';

export const TEST_TITLES: Readonly<Record<SizeTest, string>> = {
  load: 'load',
  device: 'device',
  overload: 'fuse',
  'terminal-column': 'terminal column',
  'small-conductor': 'small conductor',
  parallel: 'parallel',
  drop: 'voltage drop',
  'start-drop': 'drop at start',
  adiabatic: 'short circuit',
  terminal: 'terminal',
};

/** What the size of a cable comes to, in one word and a sentence: of the tests the worst, and what could not be held against it. */
export function conductorVerdict(
  installation: Installation,
  { chosen, line, question }: SizedLine,
): { readonly state: RowState; readonly words: string } {
  if (line.lengthM.known && line.lengthM.value === 0)
    return { state: 'unknown', words: 'a length of nought is none' };
  if (chosen === undefined) return { state: 'unknown', words: 'no size chosen' };
  if (!chosen.answers.some(({ test }) => test === 'load'))
    return { state: 'unknown', words: 'its size is not tabulated for the way it is laid' };
  const worst = chosen.worst ?? chosen.answers.find(({ state }) => state === 'tight');
  if (worst !== undefined)
    return { state: worst.state, words: `${TEST_TITLES[worst.test]}: ${worst.working()}` };
  if (awaitsRating(line))
    return {
      state: 'unknown',
      words: 'no rating of its device is stated that it could be held against; the rest is within',
    };
  if (question.faultsMissing.length > 0)
    return {
      state: 'unknown',
      words: `not every short circuit is judged, missing: ${describePlaces(installation, question.faultsMissing)}; the rest is within`,
    };
  return chosen.answers.some(({ test }) => test === 'drop')
    ? { state: 'within', words: 'within' }
    : { state: 'unknown', words: 'its length is not known, so its drop is not judged; the rest is within' };
}
