import { describe, expect, it } from 'vitest';
import { baseDesign } from '../testkit/designs.ts';
import { describePlace, describePlaces } from './places.ts';
import { counted, formatQuantity } from './quantity.ts';

describe('words', () => {
  it.each([
    [9523.8, 'VA', '9.52 kVA'],
    [999.4, 'W', '999 W'],
    [0.123, 'fraction', '12.3 %'],
    [-0.00001, 'A', '0 A'],
    [40, 'A', '40 A'],
    [Infinity, 'h', 'unlimited h'],
  ])('%f %s reads %s', (value, unit, text) => expect(formatQuantity(value, unit)).toBe(text));

  it('counts', () => expect([counted(1, 'unit'), counted(0, 'unit')]).toEqual(['1 unit', '0 units']));

  it('names places by what people called things', () => {
    const design = baseDesign();
    expect(describePlace(design, ['circuits', 'c1', 'items', 'i1', 'runningW'])).toBe(
      'running power of Heater i1',
    );
    expect(describePlace(design, ['stacks', 's', 'units', 'u1', 'firmware'])).toBe(
      'firmware of unit 1 of Stack',
    );
    expect(describePlace(design, ['stacks', 's', 'bank', 'breakerA'])).toBe('battery breaker of Stack');
    // Of a cable, whether anything is stated of it or not.
    const wired = { ...design, wiring: { cables: [{ id: 'w', lineId: 'circuit c1' }] } };
    for (const id of ['w', 'circuit c1'])
      expect(describePlace(wired, ['wiring', 'cables', id, 'outsideMm'])).toBe(
        `outside diameter of the cable of ${design.circuits[0]?.name ?? ''}`,
      );
    expect(describePlace(design, ['site', 'supply'])).toBe('supply');
    expect(describePlace(design, ['circuits', 'c1'])).toBe('Heat');
    expect(describePlace(design, ['stacks', 's', 'units', 'u1'])).toBe('unit 1 of Stack');
    expect(describePlace(design, ['stacks', 's', 'bank', 'inverterLead'])).toBe(
      describePlace(design, ['stacks', 's', 'bank', 'inverterLead']),
    );
    expect(describePlaces(design, [['a'], ['b'], ['c'], ['d'], ['e']])).toBe('a; b; c; and 2 more');
  });
});
