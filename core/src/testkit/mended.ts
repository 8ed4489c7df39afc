import { expect } from 'vitest';
import { mendsOf } from '../advise/mends/mendsOf.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { analyse, type Analysis } from '../checks/analyse.ts';
import { analysisCauses, type Cause } from '../checks/causes.ts';
import { applyEdits } from '../design/applyEdits.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { SOUND, soundDesign } from './sound.ts';

/** A design as it is read from a file, with all that follows from it. */
export function analysisOf(design: unknown): Analysis {
  const read = readDesign(JSON.parse(JSON.stringify(design)), SAMPLE_TYPES);
  if (!read.ok) throw new Error(read.problems[0]?.message);
  return analyse(read.value, SAMPLE_TYPES);
}

/** The sound design of a name. */
export function soundNamed(name: string): Design {
  const spec = SOUND.find((one) => one.name === name);
  if (spec === undefined) throw new Error(`There is no sound design "${name}".`);
  return soundDesign(spec);
}

/** A mend with a title is offered for one of some causes, clears it by what it says of itself, and brings nothing new. */
export function expectMend(analysis: Analysis, causes: readonly Cause[], title: RegExp): void {
  const offered = causes.flatMap((cause) => mendsOf(cause, analysis, SAMPLE_TYPES));
  const mend = offered.find((found) => title.test(found.title));
  expect(mend?.after.state, offered.map((one) => one.title).join('; ')).toBe('within');
  const applied = applyEdits(analysis.design, mend?.edits ?? []);
  if (!applied.ok) throw new Error(applied.problems[0]?.message);
  const before = new Set(analysisCauses(analysis).map(({ id }) => id));
  const after = analysisCauses(analysisOf(applied.value)).filter(({ state }) => state !== 'tight');
  expect(after.filter(({ id }) => !before.has(id))).toEqual([]);
}
