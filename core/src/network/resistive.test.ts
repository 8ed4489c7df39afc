import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveConstantPower } from './constantPower.ts';
import { prepare, type ResistiveNetwork } from './resistive.ts';

const voltagesOf = (network: ResistiveNetwork, injected: readonly number[] = []): number[] => {
  const prepared = prepare(network);
  if (!prepared.ok) throw new Error(prepared.problem.kind);
  const voltage = new Float64Array(network.nodeCount);
  const response = new Float64Array(network.nodeCount);
  prepared.open(voltage);
  injected.forEach((ampere, node) => {
    prepared.respond(node, 0, response);
    response.forEach((volt, at) => (voltage[at] = (voltage[at] ?? 0) + ampere * volt));
  });
  return [...voltage];
};

describe('networks worked by hand', () => {
  it('a divider: 12 V behind 1 Ω over 2 Ω and 3 Ω gives 12 · 5/6 = 10 V and 12 · 3/6 = 6 V', () =>
    expect(
      voltagesOf({
        nodeCount: 3,
        sources: [{ plus: 1, minus: 0, emfV: 12, ohm: 1 }],
        resistors: [
          { from: 1, to: 2, ohm: 2 },
          { from: 2, to: 0, ohm: 3 },
        ],
      }).map((volt) => Math.round(volt * 1e9) / 1e9),
    ).toEqual([0, 10, 6]));

  it('two sources side by side, 12 V / 1 Ω and 10 V / 1 Ω: 11 V, and 10.5 V with 1 A drawn', () => {
    const network = {
      nodeCount: 2,
      sources: [
        { plus: 1, minus: 0, emfV: 12, ohm: 1 },
        { plus: 1, minus: 0, emfV: 10, ohm: 1 },
      ],
      resistors: [],
    };
    expect(voltagesOf(network)[1]).toBeCloseTo(11, 12);
    expect(voltagesOf(network, [0, -1])[1]).toBeCloseTo(10.5, 12);
  });

  it('a bridge out of balance: 1, 2, 3, 4 Ω with 5 Ω across, 10 V behind 1 Ω', () => {
    const [, top = 0, left = 0, right = 0] = voltagesOf({
      nodeCount: 4,
      sources: [{ plus: 1, minus: 0, emfV: 10, ohm: 1 }],
      resistors: [
        { from: 1, to: 2, ohm: 1 },
        { from: 1, to: 3, ohm: 2 },
        { from: 2, to: 0, ohm: 3 },
        { from: 3, to: 0, ohm: 4 },
        { from: 2, to: 3, ohm: 5 },
      ],
    });
    // Kirchhoff at the three nodes, written out.
    expect((10 - top) / 1 - (top - left) / 1 - (top - right) / 2).toBeCloseTo(0, 12);
    expect((top - left) / 1 - left / 3 - (left - right) / 5).toBeCloseTo(0, 12);
    expect((top - right) / 2 - right / 4 + (left - right) / 5).toBeCloseTo(0, 12);
  });

  it('a conductor of nought ohms makes one node of its ends', () => {
    const [, a, b] = voltagesOf({
      nodeCount: 3,
      sources: [{ plus: 1, minus: 0, emfV: 10, ohm: 1 }],
      resistors: [
        { from: 1, to: 2, ohm: 0 },
        { from: 2, to: 0, ohm: 4 },
      ],
    });
    expect([a, b]).toEqual([8, 8]);
  });

  it.each([
    ['a negative resistance', [{ from: 1, to: 0, ohm: -1 }], [], { kind: 'bad-resistance', index: 0 }],
    ['an endless one', [{ from: 1, to: 0, ohm: Infinity }], [], { kind: 'bad-resistance', index: 0 }],
    [
      'a source without inner resistance',
      [],
      [{ plus: 1, minus: 0, emfV: 1, ohm: 0 }],
      { kind: 'ideal-source' },
    ],
    ['an island', [{ from: 1, to: 2, ohm: 1 }], [], { kind: 'no-reference', node: 2 }],
  ])('says why %s has no answer, and where', (_, resistors, sources, problem) => {
    const found = prepare({ nodeCount: 3, resistors, sources });
    expect(found).toMatchObject({ ok: false, problem });
  });

  it('does not take a matrix without an inverse for one with huge answers', () => {
    const ring = [0.1, 0.2, 0.3].map((ohm, at) => ({ from: at + 1, to: ((at + 1) % 3) + 1, ohm }));
    expect(prepare({ nodeCount: 4, resistors: ring, sources: [] }).ok).toBe(false);
  });
});

describe('laws', () => {
  const network = fc
    .record({
      nodes: fc.integer({ min: 3, max: 24 }),
      ohms: fc.array(fc.double({ min: 1e-5, max: 10, noNaN: true }), { minLength: 60, maxLength: 60 }),
      links: fc.array(fc.tuple(fc.nat(23), fc.nat(23)), { maxLength: 30 }),
    })
    .map(({ nodes, ohms, links }): ResistiveNetwork => ({
      nodeCount: nodes,
      sources: [{ plus: nodes - 1, minus: 0, emfV: 51.2, ohm: 0.01 }],
      resistors: [
        ...Array.from({ length: nodes - 1 }, (_, at) => ({ from: at, to: at + 1, ohm: ohms[at] ?? 1 })),
        ...links
          .map(([a, b], at) => ({ from: a % nodes, to: b % nodes, ohm: ohms[30 + (at % 30)] ?? 1 }))
          .filter(({ from, to }) => from !== to),
      ],
    }));

  it('what flows into a node flows out of it, to 1e-9 of what flows and the rounding of the voltages themselves', () => {
    fc.assert(
      fc.property(network, (one) => {
        const voltage = voltagesOf(one, [0, -3]);
        const net = new Float64Array(one.nodeCount);
        // Through 10 µΩ the last bit of 50 V is already half a nanoampere.
        const rounding = new Float64Array(one.nodeCount);
        let largest = 1;
        const flow = (from: number, to: number, emfV: number, ohm: number): void => {
          const [a = 0, b = 0] = [voltage[from], voltage[to]];
          const ampere = (a - b + emfV) / ohm;
          net[from] = (net[from] ?? 0) - ampere;
          net[to] = (net[to] ?? 0) + ampere;
          largest = Math.max(largest, Math.abs(ampere));
          for (const node of [from, to])
            rounding[node] = (rounding[node] ?? 0) + (Number.EPSILON * (Math.abs(a) + Math.abs(b))) / ohm;
        };
        for (const { from, to, ohm } of one.resistors) flow(from, to, 0, ohm);
        for (const { plus, minus, emfV, ohm } of one.sources) flow(minus, plus, emfV, ohm);
        net[1] = (net[1] ?? 0) - 3;
        net
          .slice(1)
          .forEach((rest, at) =>
            expect(Math.abs(rest)).toBeLessThan(1e-9 * largest + 2 * (rounding[at + 1] ?? 0)),
          );
      }),
    );
  });
});

describe('constant power', () => {
  const cell = { nodeCount: 2, resistors: [], sources: [{ plus: 1, minus: 0, emfV: 50, ohm: 0.1 }] };
  const tap = (powerW: number, leadOhm = 0) => ({ plus: 1, minus: 0, leadOhm, powerW });

  it('one source: I = (V − √(V² − 4·R·P)) / 2R; 50 V, 0.1 Ω, 4000 W: (50 − √900) / 0.2 = 100 A at 40 V', () => {
    const answer = solveConstantPower(cell, [tap(4000)]);
    if (answer.kind !== 'solved') throw new Error(answer.kind);
    expect(answer.taps[0]?.currentA).toBeCloseTo(100, 9);
    expect(answer.taps[0]?.voltageV).toBeCloseTo(40, 9);
  });

  it('a lead of its own counts like inner resistance: 0.06 Ω + 0.04 Ω', () => {
    const thinner = { ...cell, sources: [{ plus: 1, minus: 0, emfV: 50, ohm: 0.06 }] };
    const answer = solveConstantPower(thinner, [tap(4000, 0.04)]);
    expect(answer.kind === 'solved' ? answer.taps[0]?.currentA : 0).toBeCloseTo(100, 9);
  });

  it('more than V² / 4R = 6250 W cannot be had, and the answer says how much can', () => {
    const answer = solveConstantPower(cell, [tap(7000)]);
    expect(answer).toMatchObject({ kind: 'too-much' });
    expect(answer.kind === 'too-much' ? answer.deliverableW : 0).toBeCloseTo(6250, 1);
    expect(solveConstantPower(cell, [tap(6249)]).kind).toBe('solved');
  });

  it('two taps on one node draw what one of their sum would', () => {
    const two = solveConstantPower(cell, [tap(1000), tap(3000)]);
    if (two.kind !== 'solved') throw new Error(two.kind);
    expect(two.taps[0]?.currentA).toBeCloseTo(25, 9);
    expect(two.taps[1]?.currentA).toBeCloseTo(75, 9);
  });

  it('nothing drawn is an answer too', () =>
    expect(solveConstantPower(cell, [tap(0)])).toMatchObject({
      kind: 'solved',
      taps: [{ currentA: 0, voltageV: 50 }],
    }));
});

describe('many taps', () => {
  /** Modules of 51.2 V and 5 mΩ on bars with 0.1 mΩ between places, so many inverters along them. */
  const bank = (places: number, taps: number, powerW: number) => {
    const at = (place: number) => ({ plus: 2 * place + 1, minus: 2 * place });
    const resistors = Array.from({ length: places - 1 }, (_, place) => [
      { from: at(place).plus, to: at(place + 1).plus, ohm: 1e-4 },
      { from: at(place).minus, to: at(place + 1).minus, ohm: 1e-4 },
    ]).flat();
    const sources = Array.from({ length: places }, (_, place) => ({ ...at(place), emfV: 51.2, ohm: 5e-3 }));
    const network = { nodeCount: 2 * places, resistors, sources };
    const drawn = (watts: number) =>
      Array.from({ length: taps }, (_, tap) => ({
        ...at(Math.floor((tap * places) / taps)),
        leadOhm: 1e-3,
        powerW: watts,
      }));
    return { network, taps: drawn(powerW), drawn };
  };

  it.each([8, 9, 24])('%i taps each get their power, and the modules give what is drawn', (count) => {
    const { network, taps } = bank(32, count, 2000);
    const answer = solveConstantPower(network, taps);
    if (answer.kind !== 'solved') throw new Error(answer.kind);
    for (const { currentA, voltageV } of answer.taps) expect(currentA * voltageV).toBeCloseTo(2000, 6);
    const drawn = answer.taps.reduce((sum, { currentA }) => sum + currentA, 0);
    expect(answer.sourcesA.reduce((sum, one) => sum + one, 0)).toBeCloseTo(drawn, 6);
  });

  it('asked too much they say what could be given', () => {
    // 32 modules of 51.2²/(4 · 5 mΩ) = 131 kW each, less what leads and bars take: 24 · 200 kW is past all of it.
    const { network, taps } = bank(32, 24, 200_000);
    const answer = solveConstantPower(network, taps);
    expect(answer.kind).toBe('too-much');
    expect(answer.kind === 'too-much' && answer.deliverableW).toBeLessThan(32 * 131_072);
  });

  it('another load on the same network gives to the last bit what a fresh one gives', () => {
    const { network, drawn } = bank(32, 24, 0);
    solveConstantPower(network, drawn(500));
    const fresh = bank(32, 24, 0);
    expect(solveConstantPower(network, drawn(3000))).toEqual(solveConstantPower(fresh.network, drawn(3000)));
  });
});
