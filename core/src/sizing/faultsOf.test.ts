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

it('a cable of three lines stands all of them bolted together', () => {
  const spec = SOUND.find(({ name }) => name === 'three-phase native');
  if (spec === undefined) throw new Error('There is a sound design of three lines.');
  const design = soundDesign(spec);
  const lineId = 'grid supply to service-board bus';
  design.site.prospectiveFaultA = 6000;
  design.wiring = { ...design.wiring, cables: [{ id: 'k1', lineId, lengthM: 20 }] };
  const installation = compile(design, SAMPLE_TYPES);
  const lines = cableLines(installation);
  const service = lines.known ? lines.value.find(({ id }) => id === lineId) : undefined;
  // 20 m · 1.15 mΩ/m · 1.2751 = 29.33 mΩ of one conductor behind 230 / 6000 = 38.33 mΩ: 230 / 48.27 mΩ = 4765 A. Out and back it were 3282.
  const [fault] = service === undefined ? [] : faultsOf(installation, service, 63, 'XLPE90').at(16);
  expect(fault?.currentA).toBeCloseTo(4765, -1);
});
