import { modesOf } from '../modes/modes.ts';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { type Check, NO_WORKING } from '../checks/check.ts';
import type { Finding, State, Working } from '../checks/finding.ts';
import type { RegisteredFinding } from '../checks/registry.ts';
import { appliesIn, findingsOf } from '../checks/runChecks.ts';
import { sentenceOf } from '../checks/sentence.ts';
import { substitute } from '../checks/substitute.ts';
import { compile } from '../installation/compile.ts';
import type { Path } from '../values/problem.ts';
import { readDesign } from '../design/read.ts';
import type { Design } from '../design/schema.ts';
import { baseDesign, deepFreeze } from './designs.ts';
import { evaluate } from './evaluate.ts';

/** One row of a check's table: what is changed about the base design, and what must be found. */
export interface CheckCase {
  readonly name: string;
  readonly edit?: (design: Design) => void;
  readonly mode?: string;
  /** Id of the subject, where the check finds more than one. */
  readonly subject?: string;
  readonly state: State | 'nothing';
  readonly value?: number;
  readonly limit?: number;
  /** A place that must be among the missing ones, as "a/b/c". */
  readonly missing?: string;
  /** A piece that the sentence must hold. */
  readonly says?: string;
}

/** Whether all but the last step of a place can be walked in the design, by field name, id or index. */
function leadsSomewhere(design: Design, path: Path): boolean {
  // Types are copied in when first used, and a cable is listed when somebody first says something of it.
  if (path[0] === 'types' || (path[0] === 'wiring' && path[1] === 'cables')) return true;
  let value: unknown = design;
  for (const part of path.slice(0, -1)) {
    if (Array.isArray(value)) {
      const list: unknown[] = value;
      value = list.find((one) => typeof one === 'object' && one !== null && 'id' in one && one.id === part);
    } else
      value =
        typeof value === 'object' && value !== null
          ? new Map<unknown, unknown>(Object.entries(value)).get(part)
          : undefined;
    if (value === undefined) return false;
  }
  return true;
}

/** What must hold of every finding of every check: a whole sentence, working arithmetic, and links that lead somewhere. */
export function expectSound(design: Design, finding: RegisteredFinding, working: Working): void {
  const sentence = sentenceOf(design, finding);
  expect(sentence, 'an unfilled placeholder').not.toMatch(/\{\{|undefined|NaN/);
  expect(sentence, 'a gap where words were to come').not.toMatch(/ [.,;]| {2}|\bby \.|: left/);
  expect(sentence, 'a raw key').not.toMatch(/\b[a-z]{3,}[A-Z]\w*/);
  for (const words of [working.source, ...working.notes])
    expect(words, 'code in words').not.toMatch(/=>|undefined|NaN|\[object/);
  for (const step of working.steps) {
    const again = evaluate(substitute(step, (value) => String(value)));
    expect(again, `${finding.check}: ${step.symbol} = ${step.formula}`).toBeCloseTo(step.value, 6);
  }
  const paths = [
    ...finding.missing,
    ...working.inputs.map((input) => input.path),
    ...working.steps.flatMap((step) =>
      step.symbols.flatMap((one) => (one.path === undefined ? [] : [one.path])),
    ),
  ];
  for (const path of paths)
    expect(leadsSomewhere(design, path), `${finding.check} points to ${path.join('/')}`).toBe(true);
}

/** A figure worked by hand is rounded to three or four digits: it holds to a hundredth of itself, whatever its unit. */
function expectNear(found: number | undefined, wanted: number): void {
  if (found === undefined || !Number.isFinite(wanted)) expect(found).toBe(wanted);
  else
    expect(Math.abs(found - wanted), `${found}, where ${wanted} is worked by hand`).toBeLessThanOrEqual(
      1e-6 + Math.abs(wanted) * 0.01,
    );
}

/** Runs a check over its table. Inputs are frozen, so that a check that writes to its input fails here. */
export function checkTable(check: Check, cases: readonly CheckCase[]): void {
  describe(check.id, () => {
    it('has each case once', () => expect(new Set(cases.map((one) => one.name)).size).toBe(cases.length));
    it.each(cases)('$name', (one) => {
      const draft = baseDesign();
      one.edit?.(draft);
      const read = readDesign(JSON.parse(JSON.stringify(draft)), SAMPLE_TYPES);
      expect(read.ok ? [] : read.problems).toEqual([]);
      const design = deepFreeze(draft);
      const installation = compile(design, SAMPLE_TYPES);
      const modeId =
        one.mode ?? modesOf(installation).find((mode) => appliesIn(check, installation, mode))?.id;
      const mode = modesOf(installation).find((candidate) => candidate.id === modeId);
      if (mode === undefined || !appliesIn(check, installation, mode))
        throw new Error(`Mode ${String(modeId)} is not one of this design and check.`);
      const workings = new Map<Finding, () => Working>();
      const findings = findingsOf(check, { installation, mode, workings });
      for (const finding of findings) expectSound(design, finding, workings.get(finding)?.() ?? NO_WORKING);
      const found =
        one.subject === undefined
          ? findings[0]
          : findings.find((finding) => finding.subject.id === one.subject);
      if (one.state === 'nothing') {
        expect(findings).toEqual([]);
        return;
      }
      expect(found?.state).toBe(one.state);
      if (one.value !== undefined) expectNear(found?.value, one.value);
      if (one.limit !== undefined) expectNear(found?.limit, one.limit);
      if (one.missing !== undefined)
        expect(found?.missing.map((path) => path.join('/'))).toContain(one.missing);
      if (one.says !== undefined && found !== undefined)
        expect(sentenceOf(design, found)).toContain(one.says);
    });
  });
}
