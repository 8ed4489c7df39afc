import type { Installation } from '../installation/installation.ts';
import { counted } from '../words/quantity.ts';
import { limitModes } from './runChecks.ts';
import type { Cause } from './causes.ts';

/** How many things a sentence names before it counts the rest. */
const NAMED = 3;
const NUMBERS = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine'];

function named(causes: readonly Cause[]): string {
  // A title that begins with an abbreviation keeps its capitals.
  const titles = causes
    .slice(0, NAMED)
    .map(({ title }) => (/^[A-Z][A-Z]/.test(title) ? title : title.charAt(0).toLowerCase() + title.slice(1)));
  const rest = causes.length - titles.length;
  return [...titles, ...(rest > 0 ? [`${rest} more`] : [])].join('; ');
}

const things = (count: number): string =>
  `${NUMBERS[count] ?? String(count)} ${count === 1 ? 'thing is' : 'things are'}`;

const questions = (causes: readonly Cause[]): string =>
  `${counted(causes.length, 'question')} ${causes.length === 1 ? 'is' : 'are'} open`;

/** Figures that the program began with are no answer of anybody yet. */
const firstWords = (count: number): string =>
  count === 0 ? '' : ` It rests on ${counted(count, 'first value')} that nobody has looked at yet.`;

/** Limits that stand otherwise in this job than where nobody has touched them. */
function changedWords({ defaults, tableValues = [] }: Installation): string {
  const limits = Object.values(defaults).filter(({ reason }) => reason !== undefined).length;
  const changed = [
    ...(limits === 0 ? [] : [`${counted(limits, 'planning limit')} changed for this job`]),
    ...(tableValues.length === 0
      ? []
      : [`${counted(tableValues.length, 'value')} of code tables overridden by name`]),
  ];
  return changed.length === 0 ? '' : ` It rests on ${changed.join(' and ')}.`;
}

/** What stands between a job and its test, in a sentence. It speaks of the limits entered, never of safety. */
export function verdictOf(installation: Installation, causes: readonly Cause[]): string {
  const roots = causes.filter(({ follows }) => follows === undefined);
  const open = roots.filter(({ accepted }) => !accepted);
  const over = open.filter(({ state }) => state === 'over');
  const unknown = open.filter(({ state }) => state === 'unknown');
  const tight = open.filter(({ state }) => state === 'tight');
  const accepted = roots.length - open.length;
  const acceptedWords =
    (accepted === 0 ? '' : ` ${accepted} ${accepted === 1 ? 'is' : 'are'} accepted by name.`) +
    changedWords(installation) +
    firstWords(installation.firstValues.length);
  if (over.length > 0)
    return `${things(over.length)} over: ${named(over)}.${unknown.length > 0 ? ` ${questions(unknown)}.` : ''}${acceptedWords}`;
  const modes = limitModes(installation).length;
  const where = `Within the limits entered in ${modes === 1 ? 'the one mode there is' : `all ${modes} modes`}`;
  if (unknown.length > 0)
    return `${where}, as far as they are known; ${questions(unknown)}: ${named(unknown)}.${acceptedWords}`;
  return `${where}${tight.length > 0 ? `; ${tight.length} close to a limit` : ''}.${acceptedWords}`;
}
