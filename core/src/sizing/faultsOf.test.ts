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

  it('none where the sun or a control drives, or in an earth, whatever device stands ahead', () => {
    for (const use of ['pv', 'control', 'earth'] as const)
      expect(others.map((line) => told({ ...line, use }, 16))).toEqual(others.map(() => [0, []]));
    // As they are, some of them do, or say what is missing.
    expect(others.some((line) => JSON.stringify(told(line, 16)) !== '[0,[]]')).toBe(true);
  });
});
