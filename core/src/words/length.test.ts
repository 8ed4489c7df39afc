import { describe, expect, it } from 'vitest';
import { lengthIn, lengthUnitOf, metresIn } from './length.ts';

describe('lengths', () => {
  it.each([
    ['12', 'm', 12],
    ['12,5 m', 'm', 12.5],
    // 10 · 0.3048
    ['10 ft', 'm', 3.048],
    ['10', 'ft', 3.048],
    ["30'", 'm', 9.144],
    ['2.5m', 'ft', 2.5],
    ['1 200', 'm', 1200],
    ['.5', 'm', 0.5],
    ['−3', 'm', -3],
    ['10 kg', 'm', undefined],
    ['12 in', 'ft', undefined],
    ['long', 'm', undefined],
    ['', 'm', undefined],
  ] as const)('%s where %s is usual is %s m', (text, unit, metres) => {
    expect(metresIn(text, unit)).toBe(metres);
  });

  it('come back as they were typed', () => {
    for (const feet of [1, 12.5, 30, 99.9, 250])
      expect(lengthIn(metresIn(`${feet}`, 'ft') ?? NaN, 'ft')).toBe(feet);
    expect(lengthIn(7.25, 'm')).toBe(7.25);
  });

  it('are feet where North American practice is followed, and metres where nobody said', () => {
    expect(lengthUnitOf({ codeProfile: 'north-american' })).toBe('ft');
    expect([lengthUnitOf({ codeProfile: 'metric' }), lengthUnitOf({})]).toEqual(['m', 'm']);
  });
});
