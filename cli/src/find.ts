import {
  type Answer,
  compile,
  type Design,
  type FaultSearch,
  judgeMeasured,
  SAMPLE_TYPES,
  searchFault,
  type Symptom,
  SYMPTOMS,
} from '@bastion/core';
import type { Streams } from './streams.ts';

const NAMES = Object.keys(SYMPTOMS) as Symptom[];

/** What was measured so far, as "ID=good", "ID=bad" or "ID=3.2" with commas between; a figure is held against what is expected there. */
function answersOf(
  text: string | undefined,
  search: (answers: readonly Answer[]) => FaultSearch,
): readonly Answer[] | string {
  const answers: Answer[] = [];
  for (const part of text === undefined ? [] : text.split(',')) {
    const at = part.lastIndexOf('=');
    const [measurementId, outcome] = [part.slice(0, at), part.slice(at + 1).trim()];
    const { next, others } = search(answers);
    const one = [...(next === undefined ? [] : [next]), ...others].find(({ id }) => id === measurementId);
    const figure = outcome === '' ? NaN : Number(outcome);
    const isAsExpected =
      outcome === 'good' || outcome === 'bad'
        ? outcome === 'good'
        : one !== undefined && Number.isFinite(figure)
          ? judgeMeasured(one, figure)
          : undefined;
    if (at < 1 || isAsExpected === undefined)
      return `--answers ${part}: ID=good, ID=bad, or ID=3.2 where a figure is expected is needed`;
    answers.push({ measurementId, isAsExpected });
  }
  return answers;
}

/** Prints the next measurement for a symptom and what may still be wrong. 0: something to measure or mend; 1: nothing; 2: an option cannot be used. */
export function find(design: Design, options: readonly string[], streams: Streams): number {
  const symptom = NAMES.find((name) => options[0] === '--symptom' && name === options[1]);
  if (symptom === undefined || (options.length !== 2 && options.length !== 4)) {
    streams.error(`--symptom: one of ${NAMES.join(', ')} is needed\n`);
    return 2;
  }
  const installation = compile(design, SAMPLE_TYPES);
  const search = (answers: readonly Answer[]): FaultSearch => searchFault(installation, symptom, answers);
  const answers = answersOf(options[2] === '--answers' ? options[3] : undefined, search);
  if (typeof answers === 'string') {
    streams.error(`${answers}\n`);
    return 2;
  }
  const found = search(answers);
  streams.out(`${JSON.stringify({ symptom, ...found }, null, 2)}\n`);
  return found.left.length > 0 ? 0 : 1;
}
