import fc from 'fast-check';
import { expect, it } from 'vitest';
import { anyPlant, anyRun } from '../testkit/anyPlant.ts';
import { generator, plant, run, steady, sun } from '../testkit/plant.ts';
import type { OutageRun } from './outageRun.ts';
import { runOutage } from './outage.ts';
import { OutageState } from './outageState.ts';
import { playMinutes } from './playMinutes.ts';
import { playQuarter } from './playQuarter.ts';
import type { Plant } from './plant.ts';
import { QUARTER } from './quarters.ts';

/** Every figure of a state by its name: those that are carried on, and the sums. */
const figuresOf = (state: OutageState): [string, number][] =>
  Object.entries(state).flatMap(([key, value]) =>
    typeof value === 'number' && key !== 'sunOf' ? [[key, value]] : [],
  );

/** Plays an outage minute by minute, and each quarter of an hour beside it in one step where that is offered. */
function beside(one: Plant, how: OutageRun): { even: number; all: number } {
  const state = new OutageState(one, how);
  let even = 0;
  let all = 0;
  for (let from = 0; from + QUARTER <= how.minutes; from += QUARTER) {
    state.factor = how.loadFactor * (0.8 + ((from * 7) % 40) / 100);
    const inOne = state.copy(one, how);
    const isEven = playQuarter(one, how, inOne, from);
    playMinutes(one, how, state, from, from + QUARTER, undefined);
    all += 1;
    if (!isEven) continue;
    even += 1;
    const scale = 15 * (one.fullWh + 20_000);
    for (const [key, value] of figuresOf(state)) {
      const other = new Map(figuresOf(inOne)).get(key) ?? NaN;
      const off = Math.abs(value - other) / (key.startsWith('sum') ? scale : Math.max(1, Math.abs(value)));
      if (!(off < 1e-9)) expect.fail(`${key} at minute ${from}: ${other} in one step, ${value} by minutes`);
    }
    expect([inOne.isDown, inOne.isStopped]).toEqual([state.isDown, state.isStopped]);
  }
  return { even, all };
}

it('a quarter of an hour in one step is what its minutes are, whatever set and outage', () => {
  let even = 0;
  let all = 0;
  fc.assert(
    fc.property(anyPlant, anyRun, (one, how) => {
      const found = beside(one, how);
      even += found.even;
      all += found.all;
    }),
    { numRuns: 80, seed: 11 },
  );
  // It is offered often enough to have been tried.
  expect(even / all).toBeGreaterThan(0.25);
});

it('who watches changes nothing, to the last bit', () => {
  fc.assert(
    fc.property(anyPlant, anyRun, fc.integer({ min: 0, max: 1000 }), (one, how, state) => {
      const alone = runOutage(one, { ...how, chance: { state } });
      let minutes = 0;
      const watched = runOutage(one, { ...how, chance: { state } }, () => (minutes += 1));
      expect(watched).toEqual(alone);
      expect(minutes).toBe(how.minutes);
    }),
    { numRuns: 25, seed: 5 },
  );
});

const engine = { ...generator, warmUpMin: 0 };
type Case = readonly [
  name: string,
  one: Partial<Plant>,
  state: Partial<OutageState>,
  how?: Partial<OutageRun>,
];

/** Quarter hours that end otherwise than they begin: the level, the fuel or the device that is met in them is 15 minutes away at most. */
const UNEVEN: readonly Case[] = [
  // 1161.1 W take 290 Wh in a quarter: 0.029 of 10 kWh.
  ['the bank runs dry', {}, { soc: 0.12, heldWh: 1200 }],
  ['the engine is called', { generator: engine }, { soc: 0.22, heldWh: 2200 }],
  ['a stage goes', { boards: [...plant().boards, stage()] }, { soc: 0.42, heldWh: 4200 }],
  // 3000 W of sun bring 460 Wh.
  ['the bank is full', { sunDcW: sun(3000) }, { soc: 0.97, heldWh: 9700 }],
  ['more sun than it may be charged with', { sunDcW: sun(5000) }, { soc: 0.5, heldWh: 5000 }],
  // 2000 W of charging at 0.9, less what idles: 437 Wh.
  ['the engine is let go', { generator: engine }, { soc: 0.77, heldWh: 7700, engine: 2 }],
  [
    'the fuel ends',
    { generator: { ...engine, fuelL: 1 } },
    { soc: 0.5, heldWh: 5000, engine: 2, litres: 0.9 },
  ],
  ['more than the set carries', { boards: [{ ...stage(), minuteW: steady(5001) }] }, {}],
  ['more than the bank gives', { mostDischargeW: 1100 }, {}],
  ['a module fails', {}, {}, { lose: { what: 'module', minute: 14 } }],
  ['the day ends', {}, { at: 1425 }],
  // 20 W more than the load bring 18 W, and 50 W idle: 8 Wh in a quarter, where 4 are left.
  ['sun on the AC side is a little too weak', { sunAcW: sun(1020) }, { soc: 0.1004, heldWh: 1004 }],
  // Down for six minutes and up again: the lowest level is that of neither end.
  ['the bank is lowest in between', { sunDcW: dawn() }, {}],
];

function dawn() {
  const light = steady(0).map((_, minute) => (minute < 7 ? 0 : 2500));
  return sun(0).map(() => light);
}

function stage() {
  return {
    partitionId: 'x',
    name: 'Stage',
    shedBelowSoc: 0.4,
    onlyWithGenerator: false,
    minuteW: steady(100),
  };
}

it.each(UNEVEN.map(([name, ...rest]) => ({ name, rest })))('is played by minutes where $name', ({ rest }) => {
  const [one, at, how = {}] = rest;
  const set = plant(one);
  const outage = run(how);
  const begin = (more: Partial<OutageState>): OutageState => {
    const state = new OutageState(set, { ...outage, startSoc: more.soc ?? 0.5 });
    // A minute before, so that it is known what is on.
    playMinutes(set, { ...outage, lose: undefined }, state, 0, 1, undefined);
    return Object.assign(state, more);
  };
  const state = begin(at);
  const before = JSON.stringify(figuresOf(state));
  expect(playQuarter(set, outage, state, 0)).toBe(false);
  expect(JSON.stringify(figuresOf(state))).toBe(before);
});

it('is played in one step where nothing happens: 1000 W, and 1000 / 0.9 + 50 W out of the bank', () => {
  const set = plant();
  const state = new OutageState(set, run());
  playMinutes(set, run(), state, 0, 1, undefined);
  expect(playQuarter(set, run(), state, 1)).toBe(true);
  expect(state.sumServed / 60).toBeCloseTo((1000 * 16) / 60, 9);
  expect(5000 - state.heldWh).toBeCloseTo(((1000 / 0.9 + 50) * 16) / 60, 9);
});
