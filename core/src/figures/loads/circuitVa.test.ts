import { describe, expect, it } from 'vitest';
import { heater } from '../../testkit/designs.ts';
import { expectedVa } from './circuitVa.ts';

describe('VA of a circuit', () => {
  // 600 W at 0.6: 800 var. 400 W at 1: none. √(1000² + 800²) = 1280.6 VA, not 1000 + 400 = 1400.
  it('adds items as phasors', () =>
    expect(
      expectedVa([heater('a', { runningW: 600, powerFactor: 0.6 }), heater('b', { runningW: 400 })]),
    ).toBeCloseTo(1280.625, 3));

  it.each([
    { name: 'nothing listed', items: [] },
    { name: 'a power that is missing', items: [{ id: 'x', name: 'x', quantity: 1 }] },
  ])('is not known with $name', ({ items }) => expect(expectedVa(items)).toBeUndefined());
});
