import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { newerTypes, tryType } from '../advise/newerTypes.ts';
import { copyUsedTypes } from './usedTypes.ts';
import { baseDesign } from '../testkit/designs.ts';
import { freeTypeId, mergeTypes } from './mergeTypes.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import type { BatteryType } from '../catalogue/batteryType.ts';

const rack = SAMPLE_TYPES.find(
  (type): type is BatteryType => type.id === 'lfp-51v-100ah' && type.kind === 'battery',
);
if (rack === undefined) throw new Error('It is a sample.');
const own: BatteryType = { ...rack, id: 'own-rack', version: 3, name: 'Own rack' };

describe('types from a file', () => {
  it.each([
    ['a new id is new, whatever its version was', { ...own, id: 'own-new', version: 9 }, 'new', 'own-new', 1],
    ['the same again', { ...own, version: 1 }, 'same', 'own-rack', 3],
    ['another figure makes the next version', { ...own, capacityAh: 105 }, 'next-version', 'own-rack', 4],
    ['a sample as it is', rack, 'same', rack.id, rack.version],
    [
      'a changed sample becomes a copy',
      { ...rack, capacityAh: 105 },
      'copy-of-sample',
      'sample-51-2-v-100-ah-rack-module',
      1,
    ],
  ] as const)('%s', (_name, incoming, outcome, id, version) => {
    const [merged] = mergeTypes([incoming], [own], SAMPLE_TYPES);
    expect([merged?.outcome, merged?.type.id, merged?.type.version]).toEqual([outcome, id, version]);
  });

  it('twice in one file: the second is the next version of the first', () => {
    const merged = mergeTypes(
      [
        { ...own, id: 'x' },
        { ...own, id: 'x', capacityAh: 90 },
      ],
      [],
      SAMPLE_TYPES,
    );
    expect(merged.map(({ outcome, type }) => [outcome, type.version])).toEqual([
      ['new', 1],
      ['next-version', 2],
    ]);
  });

  it('makes ids from names', () => {
    expect(freeTypeId('Eigene Batterie 5 kWh', new Set())).toBe('eigene-batterie-5-kwh');
    expect(freeTypeId('Rack', new Set(['rack', 'rack-2']))).toBe('rack-3');
    expect(freeTypeId('???', new Set())).toBe('type');
  });
});

describe('a newer version in the catalogue', () => {
  const design = copyUsedTypes(baseDesign(), SAMPLE_TYPES);
  const weaker = { ...rack, version: rack.version + 1, continuousDischargeA: 10, peakDischargeA: 20 };
  const catalogue = SAMPLE_TYPES.map((type) => (type.id === rack.id ? weaker : type));

  it('is told with what differs, and changes nothing by itself', () => {
    const [newer, ...rest] = newerTypes(design, catalogue);
    expect(rest).toEqual([]);
    expect(newer?.changes.map(({ label, before, after }) => [label, before, after])).toEqual([
      ['Continuous discharge', '50', '10'],
      ['Peak discharge', '100', '20'],
    ]);
    expect(analyse(design, catalogue).findings.map((one) => one.state)).toEqual(
      analyse(design, SAMPLE_TYPES).findings.map((one) => one.state),
    );
  });

  it('says which findings would come out otherwise: 45 A at nominal of 4 · 10', () => {
    const tried = tryType(design, weaker, analyse(design, catalogue).findings, catalogue);
    expect(tried?.changes).toContainEqual({
      check: 'bank.current-nominal',
      subject: 'Battery bank of Stack',
      mode: 'island',
      before: 'within',
      after: 'over',
    });
    expect(newerTypes(tried?.design ?? design, catalogue)).toEqual([]);
  });
});
