import { describe, expect, it } from 'vitest';
import type { Circuit } from '../../installation/facts.ts';
import { compileSupply } from '../../installation/supply.ts';
import { baseDesign, heater } from '../../testkit/designs.ts';
import { boardDay, lineDay } from './lineDay.ts';

function supplyOf() {
  const supply = compileSupply({ ...baseDesign().site, supply: 'three-phase' });
  if (!supply.known) throw new Error('The supply of the base design is stated.');
  return supply.value;
}

const LINES = ['L1', 'L2', 'L3'] as const;

/** More circuits than a chunk holds, of 24 W on average each. */
const circuits = Array.from({ length: 100 }, (_, at): Circuit => ({
  id: `c${at}`,
  name: `Circuit ${at}`,
  lines: [LINES[at % 3] ?? 'L1'],
  items: [heater(`i${at}`, { runningW: 48, hoursPerDay: 12 })],
}));

const running = (list: readonly Circuit[], at: number, fromH: number, toH: number): Circuit[] =>
  list.map((one, index) =>
    index === at
      ? { ...one, items: one.items.map((item) => ({ ...item, runsFromH: fromH, runsToH: toH })) }
      : one,
  );

describe('the day of a board', () => {
  const supply = supplyOf();

  it('is one stretch where nothing says when it runs: 34 of 100 circuits on the first line, 24 W each', () => {
    const [whole, ...others] = boardDay(circuits, supply);
    expect(others).toEqual([]);
    expect(whole?.lines.map(({ re }) => Math.round(re))).toEqual([816, 792, 792]);
  });

  it('is cut in every chunk where something in another begins', () => {
    boardDay(circuits, supply);
    // The last one from 6 to 18 h, in its twelve hours at 48 W: 33 · 24 W outside, and 48 W more inside of them.
    const day = boardDay(running(circuits, 99, 6, 18), supply);
    expect(day.map(({ fromH, toH, lines }) => [fromH, toH, Math.round(lines[0]?.re ?? NaN)])).toEqual([
      [0, 6, 792],
      [6, 18, 840],
      [18, 24, 792],
    ]);
  });

  it('is that of all circuits at once', () => {
    const moved = running(running(circuits, 40, 22, 5), 7, 3, 9);
    const day = boardDay(moved, supply);
    const whole = lineDay(moved, supply);
    expect(day.map(({ fromH }) => fromH)).toEqual(whole.map(({ fromH }) => fromH));
    day.forEach(({ lines }, at) =>
      lines.forEach(({ re }, line) => expect(re).toBeCloseTo(whole[at]?.lines[line]?.re ?? NaN, 8)),
    );
  });
});
