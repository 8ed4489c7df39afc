import {
  type Answer,
  compile,
  type Design,
  SAMPLE_TYPES,
  searchFault,
  type Symptom,
  SYMPTOMS,
} from '@bastion/core';
import type { Streams } from './streams.ts';

const NAMES = Object.keys(SYMPTOMS) as Symptom[];

/** What was measured so far, as "ID=good" or "ID=bad" with commas between. */
function answersOf(text: string | undefined): readonly Answer[] | string {
  const answers: Answer[] = [];
  for (const part of text === undefined ? [] : text.split(',')) {
    const at = part.lastIndexOf('=');
    const outcome = part.slice(at + 1);
    if (at < 1 || (outcome !== 'good' && outcome !== 'bad'))
      return `--answers ${part}: ID=good or ID=bad is needed`;
    answers.push({ measurementId: part.slice(0, at), isAsExpected: outcome === 'good' });
  }
  return answers;
}

/** Prints the next measurement for a symptom and what may still be wrong. 0: something to measure or mend; 1: nothing; 2: an option cannot be used. */
export function find(design: Design, options: readonly string[], streams: Streams): number {
  const symptom = NAMES.find((name) => options[0] === '--symptom' && name === options[1]);
  const answers = answersOf(options[2] === '--answers' ? options[3] : undefined);
  if (symptom === undefined || (options.length !== 2 && options.length !== 4)) {
    streams.error(`--symptom: one of ${NAMES.join(', ')} is needed\n`);
    return 2;
  }
  if (typeof answers === 'string') {
    streams.error(`${answers}\n`);
    return 2;
  }
  const found = searchFault(compile(design, SAMPLE_TYPES), symptom, answers);
  streams.out(`${JSON.stringify({ symptom, ...found }, null, 2)}\n`);
  return found.left.length > 0 ? 0 : 1;
}
