import { expect, it } from 'vitest';
import { generator, LIMITS, plant, run, steady, thirds } from '../testkit/plant.ts';
import type { Minute } from './minute.ts';
import { runOutage } from './outage.ts';
import type { Plant } from './plant.ts';

const never = (): never => {
  throw new Error('It is there.');
};

it('a generator of one line carries that line and charges; the bank carries the others', () => {
  // 3 kW evenly on three lines, 1 kW each; 4 kVA on L1 alone, with 2 kW of charging.
  const lines = thirds(3000);
  const boards = [{ ...(plant().boards[0] ?? never()), minuteW: steady(3000), lines }];
  const engine = { ...generator, warmUpMin: 0, lineVa: [4000, 0, 0] };
  const first = (over: Partial<Plant>, soc = 0.2): Minute => {
    const seen: Minute[] = [];
    runOutage(
      plant({ boards, limits: LIMITS, generator: engine, ...over }),
      run({ startSoc: soc, minutes: 1 }),
      (_, now) => seen.push({ ...now }),
    );
    return seen[0] ?? never();
  };
  // 1 kW and 2 kW of charging; 2000/0.9 − 2000·0.9 + 50 out of the bank.
  expect(first({})).toMatchObject({ generatorW: 3000, served: 1 });
  expect(first({}).batteryW).toBeCloseTo(2000 / 0.9 + 50 - 1800, 6);
  // Of three lines it carries all three: 3 kW and 200 W up to its target.
  expect(first({ generator: { ...engine, lineVa: [1400, 1400, 1400] } }).generatorW).toBe(3200);
  // Three times 1.4 kVA are 4.2 kVA in all; one line of 1.5 kW is more than the 1.4 kVA of its own.
  const uneven = [1500, 750, 750].map((watts) => ({ re: steady(watts), im: steady(0) }));
  const onOne = { boards: [{ ...(boards[0] ?? never()), lines: uneven }] };
  expect(first({ ...onOne, generator: { ...engine, lineVa: [1400, 1400, 1400] } }).served).toBe(0);
  // Reactive power counts on its line: √(1² + 4²) kVA is more than 4.
  const lagging = lines.map(({ re }) => ({ re, im: steady(4000) }));
  expect(first({ boards: [{ ...(boards[0] ?? never()), lines: lagging }] }).served).toBe(0);
  // On a line that it does not reach the limit of the inverters stands.
  expect(first({ limits: { ...LIMITS, lineVa: [5000, 900, 5000] } }).served).toBe(0);
  // An empty bank: its own line only, a third of the load.
  const empty = first({ floorSoc: 0.2 });
  expect(empty.served).toBeCloseTo(1 / 3, 12);
  expect(empty.batteryW).toBeCloseTo(50 - 1800, 6);
});
