import { bankOfDesign } from '../../testkit/sets.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Bank, Design } from '../../design/schema.ts';
import type { Joining } from '../../design/stackSchema.ts';
import { bank1, baseDesign, stack1 } from '../../testkit/designs.ts';
import { addWall } from '../../testkit/wall.ts';
import { type BankShare, shareBank } from './bankShare.ts';

/** Inner resistance of the sample module, and one pole of 1 m of 50 mm² at 50 °C with two lugs, mΩ. */
const R = 12;
const POLE = 0.386 * (1 + 0.00393 * 30) + 2 * 0.1;
const LINK = 2 * POLE;

type Solved = Extract<BankShare, { kind: 'solved' }>;

function solve(edit: (bank: Bank, design: Design) => void, powerW: readonly number[] = [3000]): Solved {
  const design = baseDesign();
  edit(bank1(design), design);
  const circuit = bankOfDesign(design);
  if (!circuit.known || typeof circuit.value === 'string') throw new Error(JSON.stringify(circuit));
  const share = shareBank(circuit.value, powerW);
  if (share.kind !== 'solved') throw new Error(share.kind);
  return share;
}
const modules = (count: number): Bank['modules'] =>
  Array.from({ length: count }, (_, index) => ({ id: `m${index + 1}` }));
const join =
  (joining: Joining, count: number) =>
  (bank: Bank): void => {
    bank.joining = joining;
    bank.modules = modules(count);
  };
const idealBar = (bank: Bank): void => {
  bank.barSegment = { lengthM: 0, areaMm2: 100 };
};
const sharesOf = (share: Solved): number[] => share.modules.map((one) => one.share);
const closeTo = (found: readonly number[], expected: readonly number[]): void => {
  expect(found).toHaveLength(expected.length);
  found.forEach((value, at) => expect(value).toBeCloseTo(expected[at] ?? 0, 9));
};

/** A chain taken off at one end, from its far end inwards by series and parallel alone: the textbook way, without nodes. */
function ladderShares(count: number): number[] {
  const beyond = [Infinity];
  for (let at = count - 1; at > 0; at -= 1) beyond.unshift(LINK + 1 / (1 / R + 1 / (beyond[0] ?? Infinity)));
  let left = 1;
  const parts = beyond.map((ohm) => {
    const own = left * (ohm === Infinity ? 1 : ohm / (R + ohm));
    left -= own;
    return own * count;
  });
  return parts;
}

describe('banks worked without the solver', () => {
  it.each([2, 3, 8, 16])('%i in a chain at one end: series and parallel from the far end', (count) =>
    closeTo(sharesOf(solve(join('chain-same-end', count))), ladderShares(count)),
  );

  it('two in a chain by the current divider: (R + a) / (R + a / 2) and R / (R + a / 2)', () =>
    closeTo(sharesOf(solve(join('chain-same-end', 2))), [(R + LINK) / (R + LINK / 2), R / (R + LINK / 2)]));

  it('three in a chain taken off at both ends: the middle gives R / (R + b) of the outer ones, b one pole', () => {
    const middle = R / (R + POLE);
    const mean = (2 + middle) / 3;
    closeTo(sharesOf(solve(join('chain-diagonal', 3))), [1 / mean, middle / mean, 1 / mean]);
  });

  it('on bars without resistance modules share as their conductances: R, 2 R and R with their leads', () => {
    const share = solve((bank) => {
      join('bars-equal', 3)(bank);
      idealBar(bank);
      if (bank.modules[1] !== undefined) bank.modules[1].resistanceFactor = 2;
    });
    const conductance = [1 / (R + LINK), 1 / (2 * R + LINK), 1 / (R + LINK)];
    const mean = conductance.reduce((sum, one) => sum + one, 0) / 3;
    closeTo(
      sharesOf(share),
      conductance.map((one) => one / mean),
    );
  });

  it('leads of 1 m and 3 m on ideal bars: R + 2 · (0.2 + l · 0.4315)', () => {
    const share = solve((bank) => {
      join('bars-given', 2)(bank);
      idealBar(bank);
      bank.modules.forEach((module, at) => (module.lead = { lengthM: 1 + 2 * at, areaMm2: 50 }));
    });
    const far = R + 2 * (0.2 + 3 * 0.386 * (1 + 0.00393 * 30));
    const near = R + LINK;
    closeTo(sharesOf(share), [(2 * far) / (near + far), (2 * near) / (near + far)]);
  });

  it('two inverters at opposite ends of the bars take alike from modules that give alike', () => {
    const share = solve(
      (bank, design) => {
        join('bars-equal', 4)(bank);
        stack1(design).units = [
          { id: 'a', barPlace: 1 },
          { id: 'b', barPlace: 4 },
        ];
      },
      [2000, 2000],
    );
    expect(share.taps[0]?.voltageV).toBeCloseTo(share.taps[1]?.voltageV ?? 0, 9);
    expect(share.modules[0]?.currentA).toBeCloseTo(share.modules[3]?.currentA ?? 0, 9);
    expect(share.modules[1]?.currentA).toBeCloseTo(share.modules[2]?.currentA ?? 0, 9);
  });

  it('groups of two on an ideal bar, taken off at both ends: all alike', () => {
    const share = solve((bank) => {
      join('groups-on-bar', 6)(bank);
      idealBar(bank);
      bank.groupSize = 2;
      bank.groupLead = { lengthM: 0.6, areaMm2: 70 };
    });
    closeTo(sharesOf(share), [1, 1, 1, 1, 1, 1]);
  });

  it('one module and its inverter: I = (U − √(U² − 4 · R · P)) / 2R with all that lies between them', () => {
    const share = solve(join('chain-same-end', 1), [4000]);
    // Lead of 1.5 m, 70 mm²: 2 · (1.5 · 0.272 · 1.1179 + 0.2) + 0.3 = 1.61221 mΩ
    const ohm = (R + 2 * (1.5 * 0.272 * (1 + 0.00393 * 30) + 0.2) + 0.3) / 1000;
    const current = (51.2 - Math.sqrt(51.2 ** 2 - 4 * ohm * 4000)) / (2 * ohm);
    expect(share.modules[0]?.currentA).toBeCloseTo(current, 9);
    expect(share.taps[0]?.voltageV).toBeCloseTo(51.2 - current * ohm, 9);
    expect(share.modules[0]?.lossW).toBeCloseTo(current * current * 0.012, 9);
  });
});

/**
 * Banks that no divider reaches: groups, uneven charge, aged modules, thinner leads, a module taken out, several inverters. The
 * figures come from a general circuit simulator with the inverters as current sources of P / V, run once on these networks.
 */
describe('banks worked by a circuit simulator', () => {
  const uneven: readonly {
    name: string;
    edit: (bank: Bank, design: Design) => void;
    powerW: number[];
    moduleA: number[];
    tapV: number[];
  }[] = [
    {
      name: 'seven in groups of three, charged from 50 % to 62 %, one aged, two inverters',
      edit: (bank, design) => {
        join('groups-on-bar', 7)(bank);
        bank.groupSize = 3;
        bank.groupLead = { lengthM: 0.8, areaMm2: 70 };
        bank.modules.forEach((module, at) => {
          module.stateOfCharge = 0.5 + 0.02 * at;
          if (at === 1) module.resistanceFactor = 1.8;
        });
        stack1(design).units = [
          { id: 'a', barPlace: 1 },
          { id: 'b', barPlace: 3, batteryLead: { lengthM: 3, areaMm2: 50 } },
        ];
      },
      powerW: [3500, 4200],
      moduleA: [15.795999, 9.747207, 20.319856, 20.525726, 21.648391, 25.049583, 34.708592],
      tapV: [52.185556, 52.027212],
    },
    {
      name: 'five on bars by 0.5 to 2.1 m of 50 mm², one by 25 mm², the last aged, three inverters',
      edit: (bank, design) => {
        join('bars-given', 5)(bank);
        bank.modules.forEach((module, at) => {
          module.lead = { lengthM: 0.5 + 0.4 * at, areaMm2: at === 3 ? 25 : 50 };
          if (at === 4) module.resistanceFactor = 1.5;
        });
        stack1(design).units = [2, 5, 1].map((barPlace) => ({ id: `u${barPlace}`, barPlace }));
      },
      powerW: [5000, 2500, 1000],
      moduleA: [38.275156, 37.326656, 36.251015, 31.88624, 24.28659],
      tapV: [50.548687, 50.629503, 50.677059],
    },
    {
      name: 'six in a chain taken off at opposite ends, the third taken out, the first lead long and thin',
      edit: (bank) => {
        join('chain-diagonal', 6)(bank);
        bank.modules.forEach((module, at) => {
          module.stateOfCharge = [0.4, 0.4, 0.9, 0.42, 0.4, 0.38][at];
          if (at === 0) module.lead = { lengthM: 2, areaMm2: 35 };
          if (at === 2) module.fitted = 'taken-out';
        });
      },
      powerW: [9000],
      moduleA: [42.92412, 32.197881, 33.378317, 33.071873, 33.746295],
      tapV: [51.335146],
    },
  ];
  it.each(uneven)('$name', ({ edit, powerW, moduleA, tapV }) => {
    const share = solve(edit, powerW);
    expect(share.modules.map((one) => Number(one.currentA.toFixed(6)))).toEqual(moduleA);
    expect(share.taps.map((one) => Number(one.voltageV.toFixed(6)))).toEqual(tapV);
  });
});

describe('laws of every bank', () => {
  const anyBank = fc.record({
    joining: fc.constantFrom<Joining>('chain-same-end', 'chain-diagonal', 'bars-equal', 'groups-on-bar'),
    count: fc.integer({ min: 2, max: 20 }),
    lengthM: fc.double({ min: 0, max: 4, noNaN: true }),
    factor: fc.double({ min: 0.5, max: 3, noNaN: true }),
    powerW: fc.double({ min: 1, max: 4000, noNaN: true }),
  });
  const build =
    ({
      joining,
      count,
      lengthM,
      factor,
    }: {
      joining: Joining;
      count: number;
      lengthM: number;
      factor: number;
    }) =>
    (bank: Bank): void => {
      join(joining, count)(bank);
      bank.lead = { lengthM, areaMm2: 35 };
      bank.groupSize = 3;
      bank.groupLead = { lengthM: 1, areaMm2: 70 };
      const [first] = bank.modules;
      if (first !== undefined) first.resistanceFactor = factor;
    };

  it('the modules give what the inverters take, and power out is power in less heat', () => {
    fc.assert(
      fc.property(anyBank, (one) => {
        const share = solve(build(one), [one.powerW]);
        const drawn = share.taps.reduce((sum, tap) => sum + tap.currentA, 0);
        const given = share.modules.reduce((sum, one) => sum + one.currentA, 0);
        expect(given).toBeCloseTo(drawn, 9);
        expect(share.totalA).toBeCloseTo(drawn, 8);
        expect((share.taps[0]?.voltageV ?? 0) * drawn).toBeCloseTo(one.powerW, 6);
      }),
    );
  });

  it('reversing a chain taken off at opposite ends mirrors the answer, whatever the modules are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0.5, max: 3, noNaN: true }), { minLength: 2, maxLength: 16 }),
        fc.double({ min: 0, max: 3, noNaN: true }),
        (factors, lengthM) => {
          const at = (list: readonly number[]): number[] =>
            sharesOf(
              solve((bank) => {
                join('chain-diagonal', list.length)(bank);
                bank.lead = { lengthM, areaMm2: 35 };
                bank.modules.forEach((module, index) => (module.resistanceFactor = list[index] ?? 1));
              }),
            );
          closeTo(at([...factors].reverse()).reverse(), at(factors));
        },
      ),
    );
  });

  it('equal modules with equal leads on a bar without resistance share equally, wherever it is tapped', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 40 }),
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        fc.nat(),
        (count, lengthM, place) => {
          const share = solve((bank, design) => {
            join('bars-equal', count)(bank);
            idealBar(bank);
            bank.lead = { lengthM, areaMm2: 35 };
            stack1(design).units = [{ id: 'u1', barPlace: 1 + (place % count) }];
          });
          closeTo(
            sharesOf(share),
            Array.from({ length: count }, () => 1),
          );
        },
      ),
    );
  });

  it('a longer lead never makes a chain share more evenly', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }),
        fc.double({ min: 0.1, max: 3, noNaN: true }),
        (count, lengthM) => {
          const at = (length: number): number =>
            solve((bank) => {
              join('chain-same-end', count)(bank);
              bank.lead = { lengthM: length, areaMm2: 50 };
            }).worstDeparture;
          expect(at(lengthM * 1.5)).toBeGreaterThanOrEqual(at(lengthM) - 1e-12);
        },
      ),
    );
  });
});

it('64 and 512 modules are solved like any other', () => {
  for (const count of [64, 512]) {
    const shares = sharesOf(solve(join('chain-same-end', count)));
    const expected = ladderShares(count);
    closeTo(
      shares.slice(0, 3).map((share, at) => share / (expected[at] ?? 1)),
      [1, 1, 1],
    );
  }
});

describe('lengths from the wall plan', () => {
  /** Two modules of 0.48 m × 0.6 m side by side and a box between module and unit; routes from centre to centre. */
  const onWall = (bank: Bank, design: Design): void => {
    join('chain-same-end', 2)(bank);
    bank.lengthsFrom = 'wall';
    bank.lead = { areaMm2: 50 };
    bank.inverterLead = { areaMm2: 70 };
    const at = (id: string, part: 'unit' | 'module', partId: string, xM: number) => ({
      id,
      part,
      stackId: 's',
      partId,
      xM,
      yM: 1,
    });
    const route = (id: string, fromId: string, toId: string) => ({ id, fromId, toId, points: [] });
    addWall(design, {
      mounted: [at('w1', 'unit', 'u1', 2), at('w2', 'module', 'm1', 1), at('w3', 'module', 'm2', 0)],
      routes: [route('r1', 'w3', 'w2'), route('r2', 'w1', 'w2')],
    });
  };

  it('a link is as long as its route is cut: (1 + 0.3) · 1.05 = 1.365 m of 50 mm²', () => {
    const share = solve(onWall);
    const link = 2 * (1.365 * 0.386 * (1 + 0.00393 * 30) + 2 * 0.1);
    closeTo(sharesOf(share), [(R + link) / (R + link / 2), R / (R + link / 2)]);
  });

  it('a lead without a route is not known', () => {
    const design = baseDesign();
    onWall(bank1(design), design);
    design.place?.routes.pop();
    const circuit = bankOfDesign(design);
    expect(circuit).toEqual({ known: false, missing: [['stacks', 's', 'bank', 'lengthsFrom']] });
  });
});
