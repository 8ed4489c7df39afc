import type { Known } from '../../values/known.ts';
import { generatorBoard, islandBoard, onGridBoard } from './boards.ts';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Design, Item } from '../../design/schema.ts';
import type { Line } from '../../values/quantities.ts';
import { magnitude } from '../../network/complex.ts';
import { addLoad, bank1, baseDesign, circuit1, item1, stack1, threePhase } from '../../testkit/designs.ts';
import { autonomy } from '../bank/autonomy.ts';
import type { Board } from './board.ts';
import { compile } from '../../installation/compile.ts';
import type { CompiledStack } from '../../installation/installation.ts';
import { startSource } from './loads.ts';

function stackOf(edit: (design: Design) => void): CompiledStack {
  const design = baseDesign();
  edit(design);
  const [stack] = compile(design, SAMPLE_TYPES).stacks;
  if (stack === undefined) throw new Error('The base design has a stack.');
  return stack;
}
function boardOf(edit: (design: Design) => void): Board {
  const board = islandBoard(stackOf(edit));
  if (!board.known) throw new Error('The base design has a supply.');
  return board.value;
}
const firstStartVa = (board: Board): number => board.startingItems[0]?.steps[0]?.multiple ?? 0;

describe('start data of an item', () => {
  const motor = { runningW: 1500, powerFactor: 0.75, startClass: 'capacitor-motor' } as const;
  it.each([
    // 2000 VA running. One line: 230 V · 40 A = 9200 VA = 4.6 ×.
    { name: 'locked-rotor current on one line', item: { lockedRotorA: 40 }, lines: ['L1'], multiple: 4.6 },
    // Two lines of three: √3 · 230 V · 40 A = 15934.9 VA = 7.967 ×.
    {
      name: 'locked-rotor current line to line',
      item: { lockedRotorA: 40 },
      lines: ['L1', 'L2'],
      multiple: 7.967,
    },
    // Three lines: 3 · 230 V · 40 A = 27600 VA = 13.8 ×.
    {
      name: 'locked-rotor current on three lines',
      item: { lockedRotorA: 40 },
      lines: ['L1', 'L2', 'L3'],
      multiple: 13.8,
    },
    // Letter G: 6.29 kVA per hp · 2 hp = 12580 VA = 6.29 ×.
    {
      name: 'code letter and horsepower',
      item: { codeLetter: 'G', horsepower: 2 },
      lines: ['L1'],
      multiple: 6.29,
    },
    { name: 'the class where nothing else is known', item: {}, lines: ['L1'], multiple: 5 },
    {
      name: 'an own multiple before all others',
      item: { lockedRotorA: 40, startMultiple: 3, startDurationS: 1, startPowerFactor: 0.5 },
      lines: ['L1'],
      multiple: 3,
    },
  ] as const)('$name: $multiple times running', ({ item, lines, multiple }) => {
    const board = boardOf((d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = [...lines];
      Object.assign(item1(d), motor, item);
    });
    expect(firstStartVa(board)).toBeCloseTo(multiple, 3);
    expect(board.starts.missing).toEqual([]);
  });

  it('names what a code letter still needs, and where a start comes from', () => {
    const board = boardOf((d) => void Object.assign(item1(d), motor, { codeLetter: 'G' }));
    expect(board.starts.missing).toEqual([['circuits', 'c1', 'items', 'i1', 'horsepower']]);
    expect(startSource({ id: 'i', name: 'x', codeLetter: 'G', startClass: 'compressor' })).toBe(
      'code letter',
    );
    expect(startSource({ id: 'i', name: 'x' })).toBeUndefined();
  });
});

describe('the measured load case', () => {
  const reading = (line: Line, currentA: number) => ({
    id: `r${line}${currentA}`,
    line,
    currentA,
    takenAt: '2026-03-01T10:00:00Z',
    by: 'Femi',
  });

  it('puts the highest clamp reading in place of the estimate, at its angle', () => {
    const board = boardOf((d) => {
      Object.assign(item1(d), { powerFactor: 0.8 });
      circuit1(d).clampReadings = [reading('L1', 6), reading('L1', 8)];
      addLoad(d, 'c2', ['L1']);
    });
    // 8 A · 230 V = 1840 VA at pf 0.8: 1472 W + j1104; the other circuit stays at 2300 W.
    expect(board.continuous.knownPart[0]?.re).toBeCloseTo(3772, 6);
    expect(board.continuous.knownPart[0]?.im).toBeCloseTo(1104, 6);
    expect(board.continuous.loadCase).toBe('measured by clamp');
    expect(magnitude(board.expected.knownPart[0] ?? { re: 0, im: 0 })).toBeGreaterThan(4000);
  });

  const measuredPair = (
    lines: readonly Line[],
    on: readonly Line[],
    over: Partial<Item> = { runningW: undefined },
  ): Board =>
    boardOf((d) => {
      threePhase(d, [1, 1, 1]);
      circuit1(d).lines = [...on];
      Object.assign(item1(d), over);
      if (over.runningW === undefined) Reflect.deleteProperty(item1(d), 'runningW');
      circuit1(d).clampReadings = lines.map((line) => reading(line, 10));
    });

  it('makes a circuit known whose items are not, but only when every line of it was measured', () => {
    const all = measuredPair(['L1', 'L2', 'L3'], ['L1', 'L2', 'L3']);
    expect(all.continuous.missing).toEqual([]);
    expect(all.continuous.knownPart.map((one) => one.re)).toEqual([2300, 2300, 2300]);
    expect(measuredPair(['L1', 'L2'], ['L1', 'L2', 'L3']).continuous.missing).not.toEqual([]);
  });

  it('reads the one current between two lines on either of them', () => {
    // 10 A · 398.4 V = 3984 W, half of it on each, 30° before and behind the voltage of the line: ± 1150 var.
    for (const read of [['L1'], ['L2'], ['L1', 'L2']] as const) {
      const { continuous } = measuredPair(read, ['L1', 'L2']);
      expect(continuous.missing).toEqual([]);
      expect(continuous.knownPart.map(({ re }) => re).map(Math.round)).toEqual([1992, 1992, 0]);
      expect(continuous.knownPart.map(({ im }) => Math.round(Math.abs(im)))).toEqual([1150, 1150, 0]);
    }
    // With an estimate at its angle: 3984 VA at 0.8.
    const { knownPart } = measuredPair(['L2'], ['L1', 'L2'], { runningW: 1000, powerFactor: 0.8 }).continuous;
    expect(knownPart.reduce((sum, { re }) => sum + re, 0)).toBeCloseTo(3983.7 * 0.8, 0);
    expect(knownPart.reduce((sum, { im }) => sum + im, 0)).toBeCloseTo(3983.7 * 0.6, 0);
  });

  it('scales the board to the peak of its own meter, crest included', () => {
    const meter = {
      id: 'm',
      name: 'Sub-meter',
      scope: 'b',
      source: 'a.csv',
      intervalMin: 30 as const,
      firstAt: '2026-01-01T00:00:00Z',
      lastAt: '2026-02-01T00:00:00Z',
      readings: 1488,
      missing: 0,
      peakW: 3000,
      peakAt: '2026-01-05T18:00:00Z',
      durationW: Array.from({ length: 101 }, () => 0),
      seasons: [],
    };
    const board = boardOf((d) => void d.meters.push(meter));
    expect(board.continuous.knownPart[0]?.re).toBeCloseTo(3900, 6);
    expect(boardOf((d) => void d.meters.push({ ...meter, scope: 'building' })).continuous.loadCase).toBe(
      'expected peak',
    );
  });
});

describe('partitions in each mode', () => {
  const kinds = (d: Design): void => {
    d.partitions.push(
      { id: 'x', name: 'Locked out', kind: 'locked-out', stackId: 's' },
      {
        id: 'y',
        name: 'Stage',
        kind: 'shed',
        stackId: 's',
        shedStage: 1,
        shedWhen: 'below-soc',
        shedBelowSoc: 0.4,
      },
      { id: 'z', name: 'With generator', kind: 'generator-only', stackId: 's' },
    );
    for (const id of ['x', 'y', 'z']) {
      addLoad(d, `c-${id}`, ['L1']);
      d.circuits.forEach((circuit) => circuit.id === `c-${id}` && (circuit.partitionId = id));
    }
  };
  const ids = (board: Known<Board>): string[] =>
    board.known ? board.value.circuits.map((circuit) => circuit.id) : [];

  it('carry what they should', () => {
    const stack = stackOf(kinds);
    expect(ids(islandBoard(stack))).toEqual(['c1', 'c-y']);
    expect(ids(onGridBoard(stack))).toEqual(['c1', 'c-x', 'c-y']);
    expect(ids(generatorBoard(stack))).toEqual(['c1', 'c-y', 'c-z']);
  });

  it('last longer once a stage is shed', () => {
    const stack = stackOf((d) => {
      kinds(d);
      bank1(d).reserveSoc = 0.5;
    });
    const found = autonomy(stack, 'reserve', 'average');
    if (found?.known !== true) throw new Error('Nothing is missing here.');
    // 400 Ah · 51.2 V = 20480 Wh. 0.5 to 0.4: 2048 Wh at 2300 W / 0.94 + 50 W. Then at 1150 W / 0.94 + 50 W down to the floor.
    const { segments, floorSoc } = found.value;
    expect(segments.map((one) => one.loadW)).toEqual([2300, 1150]);
    expect(segments[0]?.hours).toBeCloseTo(2048 / (2300 / 0.94 + 50), 9);
    expect(found.value.hours).toBeCloseTo(
      2048 / (2300 / 0.94 + 50) + (20480 * (0.4 - floorSoc)) / (1150 / 0.94 + 50),
      9,
    );
    expect(stack1(baseDesign()).units).toHaveLength(1);
  });
});
