import { describe, expect, it } from 'vitest';
import { largestDeviceA, nextDeviceA } from './deviceFor.ts';
import { leadAmpacityA } from './leadAmpacity.ts';
import { leadOhm } from './leads.ts';
import { leadSizeWords, rangeWords, readLeadSize, thickestWords, thinnestWords } from './leadSizes.ts';

describe('a size as it is written', () => {
  it.each([
    ['50', 50],
    ['2,5 mm²', 2.5],
    ['4/0', 107],
    ['4/0 AWG', 107],
    ['AWG 6', 13.3],
    ['#10', 5.26],
    ['250 kcmil', 127],
    ['300 MCM', 152],
    // A plain number is a metric area, not a gauge.
    ['6', 6],
    ['13 AWG', undefined],
    ['thick', undefined],
    ['0', undefined],
  ])('%s', (text, area) => expect(readLeadSize(text, 'metric')).toBe(area));

  it.each([
    // 6 AWG is 13.3 mm², 250 kcmil 127; 16 is neither a gauge nor kcmil of the table.
    ['6', 13.3],
    ['250', 127],
    ['16', 16],
    ['6 mm²', 6],
    ['2.5', 2.5],
    ['4/0', 107],
  ])('%s alone, in North American practice', (text, area) =>
    expect(readLeadSize(text, 'north-american')).toBe(area),
  );

  it('is shown by its name', () => {
    expect(leadSizeWords(107)).toBe('4/0 AWG');
    expect(leadSizeWords(50)).toBe('50 mm²');
  });

  // 2 AWG is 33.6 mm² and 1 AWG 42.4; 14 AWG is 2.08.
  it('what a terminal takes is told in the sizes of the profile', () => {
    expect(rangeWords('north-american', 1, 35)).toBe('14 AWG to 2 AWG (1 to 35 mm²)');
    expect(rangeWords('metric', 1, 35)).toBe('1 to 35 mm²');
    expect(thickestWords('north-american', 35)).toBe('2 AWG (35 mm²)');
    expect(thinnestWords('north-american', 4)).toBe('10 AWG (4 mm²)');
    // 1/0 AWG is 53.5 mm²: 53 and 54 mm² are it.
    expect(thickestWords('north-american', 53)).toBe('1/0 AWG (53 mm²)');
    expect(thickestWords('north-american', 1)).toBe('1 mm²');
  });
});

describe('resistance and capacity of any size', () => {
  it.each([
    ['50 mm², class 5: 0.386 Ω/km', 10, 50, 20, 0.00386],
    ['4/0: 0.0608 Ω/kft at 75 °C = 0.1995 Ω/km; at 20 °C over 1.21615: 0.1640', 10, 107, 20, 0.00164],
    ['42 mm², in no table: 0.017241 / 42 per metre', 10, 42, 20, 0.004105],
    ['and at 50 °C: times 1.1179', 10, 42, 50, 0.004589],
  ])('%s', (_, lengthM, areaMm2, conductorC, ohm) =>
    expect(leadOhm(lengthM, areaMm2, conductorC) / ohm).toBeCloseTo(1, 3),
  );

  it('takes the smaller row for a size between two: 42 mm² as 35 mm² in metric, 1/0 as 50 mm²', () => {
    expect(leadAmpacityA('metric', 42, 30)).toBe(leadAmpacityA('metric', 35, 30));
    expect(leadAmpacityA('metric', 53.5, 30)).toBe(leadAmpacityA('metric', 50, 30));
    expect(leadAmpacityA('north-american', 107, 30)).toBe(230);
    expect(leadAmpacityA('metric', 1, 30)).toBe('not tabulated');
  });
});

describe('the largest device for a conductor', () => {
  it.each([
    ['metric: not above what it carries', 'metric', 41, 10, 41],
    ['North American: 230 A takes the next standard 250', 'north-american', 230, 107, 250],
    ['exactly a standard rating stays', 'north-american', 200, 85, 200],
    ['14 AWG never above 15 A', 'north-american', 20, 2.08, 15],
    ['12 AWG never above 20 A', 'north-american', 25, 3.31, 20],
    ['10 AWG never above 30 A', 'north-american', 35, 5.26, 30],
    // 20 · 1.15 · 0.5 and 25 · 1.15 · 0.5: the next standard rating is theirs too.
    ['14 AWG among many, 11.5 A: 15', 'north-american', 11.5, 2.08, 15],
    ['12 AWG among many, 14.4 A: 15', 'north-american', 14.375, 3.31, 15],
    // Ratings of battery devices (63, 160 A) are none of its standard ones.
    ['62.5 A takes 70', 'north-american', 62.5, 53.5, 70],
    ['158.2 A takes 175', 'north-american', 158.175, 152, 175],
    ['830 A takes no more', 'north-american', 830, 500, 830],
  ] as const)('%s', (_, profile, ampacityA, areaMm2, limit) => {
    expect(largestDeviceA(profile, ampacityA, areaMm2)).toBe(limit);
  });

  it('goes up to the next standard rating', () => {
    expect(nextDeviceA('metric', 17)).toBe(20);
    expect(nextDeviceA('metric', 63)).toBe(63);
    expect(nextDeviceA('north-american', 126)).toBe(150);
    expect(nextDeviceA('metric', 130, 'battery')).toBe(160);
    expect(nextDeviceA('metric', 900)).toBeUndefined();
  });
});
