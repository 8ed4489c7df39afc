import { describe, expect, it } from 'vitest';
import { analyse } from '../checks/analyse.ts';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { dayProfile, profileDurationW } from '../figures/loads/dayProfile.ts';
import { levelTimes } from '../network/overload.ts';
import { partsOf } from '../schedules/parts.ts';
import { baseDesign, deepFreeze } from '../testkit/designs.ts';
import { compareVariants } from './compare.ts';

const design = deepFreeze(baseDesign());

describe('variants side by side', () => {
  it('marks what differs, and nothing else', () => {
    const moved = baseDesign();
    const [circuit] = moved.circuits;
    if (circuit?.items[0] === undefined) throw new Error('The design has a circuit.');
    circuit.items[0].runningW = 9000;
    const same = compareVariants(
      [analyse(design, SAMPLE_TYPES), analyse(design, SAMPLE_TYPES)],
      SAMPLE_TYPES,
    );
    expect(same.length).toBeGreaterThan(10);
    expect(same.filter((row) => row.differs)).toEqual([]);
    const rows = compareVariants([analyse(design, SAMPLE_TYPES), analyse(moved, SAMPLE_TYPES)], SAMPLE_TYPES);
    const differing = rows.filter((row) => row.differs).map((row) => row.label);
    expect(differing).toContain('Continuous load on L1');
    expect(differing).not.toContain('Backed up');
  });

  it('counts alike parts on one line', () => {
    const [stack] = design.stacks;
    const units = stack?.units.length ?? 0;
    expect(partsOf(design, SAMPLE_TYPES)[0]).toMatchObject({ count: units });
    expect(partsOf({ ...design, stacks: [] }, SAMPLE_TYPES)).toEqual([]);
  });
});

describe('a day as it is expected', () => {
  const item = { id: 'i', name: 'Lamp', quantity: 2, runningW: 100, demandFactor: 0.5 };
  const circuits = [
    { id: 'a', name: 'a', items: [{ ...item, runsFromH: 22, runsToH: 2 }] },
    { id: 'b', name: 'b', items: [{ ...item, id: 'j' }] },
    { id: 'c', name: 'c', items: [] },
  ];
  it('adds 2 · 100 W · 0.5 in the hours in which a thing may run, also past midnight, and names what is missing', () => {
    const profile = dayProfile(circuits);
    expect([0, 1, 2, 21, 22, 23].map((hour) => profile.hourW[hour])).toEqual([200, 200, 100, 100, 200, 200]);
    expect(profile.missing).toEqual([['circuits', 'c', 'items']]);
    const curve = profileDurationW(profile);
    // Four of 24 hours at 200 W: up to 3/23 of the way, 13 %.
    expect([curve[0], curve[13], curve[16], curve[100]]).toEqual([200, 200, 100, 100]);
  });
});

it('an envelope as levels: 5 kVA for 1 s inside 3 kVA for 1 + 1 + 2 s', () => {
  const steps = [
    { va: 3000, durationS: 1 },
    { va: 5000, durationS: 1 },
    { va: 3000, durationS: 2 },
    { va: 1000, durationS: 0 },
  ];
  expect(levelTimes(steps)).toEqual([
    { va: 5000, timeS: 1 },
    { va: 3000, timeS: 4 },
    { va: 1000, timeS: 4 },
  ]);
});
