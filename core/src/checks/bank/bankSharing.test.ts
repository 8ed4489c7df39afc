import { bankOfDesign } from '../../testkit/sets.ts';
import { describe, expect, it } from 'vitest';
import { shareBank } from '../../figures/bank/bankShare.ts';
import type { Joining } from '../../design/stackSchema.ts';
import type { Design } from '../../design/schema.ts';
import { checkTable } from '../../testkit/checkTable.ts';
import { bank1, baseDesign, forget, stack1 } from '../../testkit/designs.ts';
import { bankSharing } from './bankSharing.ts';

// 50 mm² class 5 at 50 °C: 0.386 · (1 + 0.00393 · 30) = 0.43151 mΩ/m; a pole of 1 m with two lugs: 0.63151 mΩ.
// A chain of two: the far module has 2 · 0.63151 = 1.26302 mΩ more than the near one, on 12 mΩ inside.
// Shares by the current divider: near 13.26302 / 25.26302 = 0.52500, far 0.47500: 5 % from the mean of one half.
function chainOf(joining: Joining, count: number, lengthM = 1) {
  return (design: Design): void => {
    const bank = bank1(design);
    bank.joining = joining;
    bank.lead = { lengthM, areaMm2: 50 };
    bank.modules = Array.from({ length: count }, (_, index) => ({ id: `m${index + 1}` }));
  };
}

checkTable(bankSharing, [
  {
    name: 'two in a chain at one end: 12 mΩ beside 12 + 2 · 0.6315 mΩ, 13.263 / 12.6315 = 1.05',
    edit: chainOf('chain-same-end', 2),
    state: 'within',
    value: 13.26302 / 12.63151 - 1,
    limit: 0.1,
  },
  {
    name: 'the same with leads of 3 m: (0.2 + 3 · 0.43151) · 2 = 2.989 mΩ more, 14.989 / 13.4945 = 1.1108',
    edit: chainOf('chain-same-end', 2, 3),
    state: 'over',
    value: (12 + 2.98906) / (12 + 1.49453) - 1,
  },
  {
    name: 'two in a chain taken off at both ends: each has one lead in its way',
    edit: chainOf('chain-diagonal', 2, 3),
    state: 'within',
    value: 0,
  },
  {
    name: 'seven in a long chain, even diagonally: the middle works least',
    edit: chainOf('chain-diagonal', 7, 2),
    state: 'over',
  },
  {
    name: 'one aged module on the bars has twice the resistance',
    edit: (design) => {
      const third = bank1(design).modules[2];
      if (third !== undefined) third.resistanceFactor = 2;
    },
    state: 'over',
    says: 'departure of module 3 from the mean',
  },
  {
    name: 'bars with leads of their own, one of them not given',
    edit: (design) => {
      bank1(design).joining = 'bars-given';
    },
    state: 'unknown',
    missing: 'stacks/s/bank/modules/m1/lead',
  },
  {
    name: 'nobody has said how they are joined',
    edit: (design) => forget(bank1(design), 'joining'),
    state: 'unknown',
    missing: 'stacks/s/bank/joining',
  },
  {
    name: 'a size that no table has is worked out from its area',
    edit: (design) => {
      bank1(design).lead = { lengthM: 1, areaMm2: 33 };
    },
    state: 'within',
  },
  {
    name: 'a lead of which only the length is known',
    edit: (design) => {
      bank1(design).lead = { lengthM: 1 };
    },
    state: 'unknown',
    missing: 'stacks/s/bank/lead/areaMm2',
  },
  {
    name: 'a bar of which only the cross-section is known',
    edit: (design) => {
      bank1(design).barSegment = { areaMm2: 200 };
    },
    state: 'unknown',
    missing: 'stacks/s/bank/barSegment/lengthM',
  },
  {
    // 4 m: 12 + 2 · (4 · 0.43151 + 0.2) = 15.852 mΩ beside three of 13.263: the mean conductance is 0.07232, its own 0.06308.
    name: 'one own length, in the size of the others: 0.06308 / 0.07232 − 1 = −12.8 %',
    edit: (design) => {
      const bank = bank1(design);
      bank.barSegment = { lengthM: 0, areaMm2: 200 };
      if (bank.modules[0] !== undefined) bank.modules[0].lead = { lengthM: 4 };
    },
    state: 'over',
    value: 0.128,
  },
  {
    name: 'groups of two on a bar, alike',
    edit: (design) => {
      const bank = bank1(design);
      bank.joining = 'groups-on-bar';
      bank.groupSize = 2;
      bank.groupLead = { lengthM: 1, areaMm2: 95 };
    },
    state: 'within',
  },
  {
    name: 'one module has nobody to share with',
    edit: chainOf('chain-same-end', 1),
    state: 'within',
    value: 0,
  },
  {
    name: 'a load that no bank of one small module can give: 250 kW of 51.2² / (4 · R); that is told apart',
    edit: (design) => {
      chainOf('chain-same-end', 1)(design);
      const item = design.circuits[0]?.items[0];
      if (item !== undefined) item.runningW = 250_000;
    },
    state: 'nothing',
  },
  {
    name: 'modules in series are one string',
    edit: (design) => {
      bank1(design).batteryTypeId = 'lfp-102v-50ah-stack';
    },
    state: 'nothing',
  },
  {
    name: 'no battery',
    edit: (design) => {
      stack1(design).bank = 'none';
    },
    state: 'nothing',
  },
]);

describe('a solved bank', () => {
  const currents = (edit: (design: Design) => void, watts = 3000): number[] => {
    const design = baseDesign();
    edit(design);
    const circuit = bankOfDesign(design);
    if (!circuit.known || typeof circuit.value === 'string') throw new Error('The bank is not known.');
    const share = shareBank(circuit.value, [watts]);
    if (share.kind !== 'solved') throw new Error(share.kind);
    return share.modules.map((module) => module.currentA);
  };

  it('mirrors when the chain is turned round', () => {
    const there = currents((design) => {
      chainOf('chain-same-end', 6)(design);
      const [first] = bank1(design).modules;
      if (first !== undefined) first.resistanceFactor = 1.7;
    });
    const diagonal = currents(chainOf('chain-diagonal', 6));
    [...diagonal].reverse().forEach((current, at) => expect(current).toBeCloseTo(diagonal[at] ?? 0, 9));
    expect(there[0]).toBeLessThan(there[1] ?? 0);
  });

  it('shares evenly where everything is alike and the bar has no resistance', () => {
    const all = currents((design) => {
      chainOf('bars-equal', 5)(design);
      bank1(design).barSegment = { lengthM: 0, areaMm2: 200 };
    });
    all.forEach((current) => expect(current).toBeCloseTo(all[0] ?? 0, 9));
  });

  it('a fuller module gives more: 52.7 V beside 52.4 V over 2 · 12 mΩ is 12.5 A from one to the other at rest', () => {
    const [full = 0, low = 0] = currents((design) => {
      chainOf('bars-equal', 2)(design);
      const bank = bank1(design);
      bank.barSegment = { lengthM: 0, areaMm2: 200 };
      bank.lead = { lengthM: 0, areaMm2: 50 };
      design.defaults.push({ id: 'jointMilliohm', value: 0, reason: 'worked case' });
      bank.modules.forEach((module, index) => (module.stateOfCharge = index === 0 ? 0.6 : 0.4));
    }, 0);
    expect(full).toBeCloseTo(12.5, 9);
    expect(low).toBeCloseTo(-12.5, 9);
  });

  it('a module that is taken out gives nothing and the others carry on', () => {
    const left = currents((design) => {
      chainOf('chain-diagonal', 4)(design);
      const module = bank1(design).modules[1];
      if (module !== undefined) module.fitted = 'taken-out';
    });
    expect(left).toHaveLength(3);
  });
});
