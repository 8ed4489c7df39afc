import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { cableLines } from '../figures/wiring/cableLines.ts';
import { compile } from '../installation/compile.ts';
import { SOUND, soundDesign } from '../testkit/sound.ts';
import { faultsOf } from './faultsOf.ts';

describe.each(SOUND.map((spec) => [spec.name, spec] as const))('cables of %s', (_, spec) => {
  const installation = compile(soundDesign(spec), SAMPLE_TYPES);
  const lines = cableLines(installation);
  const others = (lines.known ? lines.value : []).filter(({ circuit }) => circuit === undefined);
  const told = (line: (typeof others)[number], deviceA: number | undefined) => {
    const { at, missing } = faultsOf(installation, line, deviceA, 'XLPE90');
    return [at(16).length, missing];
  };

  it('stand no fault while nothing opens one', () =>
    expect(others.map((line) => told(line, undefined))).toEqual(others.map(() => [0, []])));

  it('none at all where the sun or a control drives, or in an earth, whatever device stands ahead', () => {
    const quiet = others.filter(({ use }) => use === 'pv' || use === 'control' || use === 'earth');
    expect(quiet.map((line) => told(line, 16))).toEqual(quiet.map(() => [0, []]));
    // And the others do, or say what is missing: the same question, asked behind 16 A.
    const driven = others.filter((line) => !quiet.includes(line));
    expect(driven.some((line) => JSON.stringify(told(line, 16)) !== '[0,[]]')).toBe(true);
  });
});
