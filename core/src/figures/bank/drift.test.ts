import { bankOfDesign } from '../../testkit/sets.ts';
import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../../catalogue/samples.ts';
import type { Bank } from '../../design/schema.ts';
import { bank1, baseDesign } from '../../testkit/designs.ts';
import type { BankCircuit } from './bankCircuit.ts';
import { driftOf, type Drift } from './drift.ts';
import { seriesOrder, seriesWindow } from '../../installation/seriesStack.ts';
import { joinSteps } from './joining.ts';

function circuitOf(edit: (bank: Bank) => void): BankCircuit {
  const design = baseDesign();
  edit(bank1(design));
  const circuit = bankOfDesign(design);
  if (!circuit.known || typeof circuit.value === 'string') throw new Error('All of it is known.');
  return circuit.value;
}

function drift(edit: (bank: Bank) => void, watts = 3000): Drift {
  const found = driftOf({ circuit: circuitOf(edit), powersW: [watts], startSoc: 1, cutoffSoc: 0.1 });
  if (!found.known) throw new Error('All of it is known.');
  return found.value;
}

describe('drift over a full discharge', () => {
  it('modules that are alike on bars without resistance stay together to the end', () => {
    const found = drift((bank) => (bank.barSegment = { lengthM: 0, areaMm2: 100 }));
    expect(found.worstSpread).toBeLessThan(1e-9);
    expect(found.settledAfterH).toBe(0);
    // 0.9 · 400 Ah at 3000 W and about 52 V: near 6.2 h; the resting curve and the leads move it by little.
    expect(found.endH).toBeGreaterThan(5.9);
    expect(found.endH).toBeLessThan(6.4);
  });

  it('the charge that leaves is what the modules have lost: 4 · 100 Ah · 0.9 within a step', () => {
    const found = drift((bank) => (bank.barSegment = { lengthM: 0, areaMm2: 100 }), 2000);
    const last = found.points.filter((point) => !point.isResting).at(-1);
    const lostAh = (last?.socs ?? []).reduce((sum, soc) => sum + 100 * (1 - soc), 0);
    expect(lostAh).toBeGreaterThanOrEqual(359.9);
    // At 2 kW about 40 A flow: a step of a minute is 0.67 Ah.
    expect(lostAh).toBeLessThan(361);
  });

  it('a chain taken off at one end parts, the near module first empty, and comes together at rest', () => {
    const found = drift((bank) => {
      bank.joining = 'chain-same-end';
      bank.lead = { lengthM: 2, areaMm2: 25 };
    });
    const during = found.points.find((point) => !point.isResting && point.timeH > 1);
    const [near, , , far] = during?.socs ?? [];
    expect(near ?? 1).toBeLessThan(far ?? 0);
    expect(found.worstSpread).toBeGreaterThan(0.05);
    const rest = found.points.filter((point) => point.isResting);
    const spread = (socs: readonly number[]): number => Math.max(...socs) - Math.min(...socs);
    for (let at = 1; at < rest.length; at += 1)
      expect(spread(rest[at]?.socs ?? [])).toBeLessThanOrEqual(spread(rest[at - 1]?.socs ?? []) + 1e-9);
  });

  it('needs a resting curve', () => {
    const circuit = circuitOf(() => undefined);
    const bare = {
      ...circuit,
      modules: circuit.modules.map((one) => {
        const { openCircuit: _curve, ...type } = one.type;
        return { ...one, type };
      }),
    };
    const found = driftOf({ circuit: bare, powersW: [1000], startSoc: 1, cutoffSoc: 0.1 });
    expect(found.known).toBe(false);
  });
});

describe('bringing modules together', () => {
  it('takes the middle one first and holds back what stands too far off', () => {
    const circuit = circuitOf((bank) => {
      bank.modules.forEach((module, index) => (module.stateOfCharge = [0.5, 0.52, 0.48, 1][index] ?? 0.5));
    });
    const steps = joinSteps(circuit, 0.1);
    expect(steps.map((step) => step.say)).toEqual(['first', 'close', 'close', 'bring-nearer']);
    const last = steps.at(-1);
    expect(last?.moduleNumber).toBe(4);
    // 54.4 V against three near 52.55 V: 1.85 V over R + R / 3, R = 12 + 2 · (0.386 · 1.1179 + 0.2) = 13.263 mΩ.
    expect(last?.currentA).toBeCloseTo(1.85 / (0.013263 * (4 / 3)), 0);
  });
});

describe('series stacks', () => {
  it('counts what fits: 300 / 89.6 → 4 and 500 / 115.2 → 4', () => {
    const battery = SAMPLE_TYPES.find((type) => type.id === 'lfp-102v-50ah-stack');
    const inverter = SAMPLE_TYPES.find((type) => type.id === 'hybrid-11k-240-hv');
    if (battery?.kind !== 'battery' || inverter?.kind !== 'inverter') throw new Error('They are samples.');
    expect(seriesWindow(battery, inverter)).toEqual({ least: 4, most: 4 });
  });

  it('lists five links for four modules, the service disconnect in the middle', () => {
    const links = seriesOrder(4, 102.4, true);
    expect(links.map((link) => `${link.from} to ${link.to}`)).toEqual([
      'inverter battery − to module 1 −',
      'module 1 + to module 2 −',
      'module 2 + to module 3 −',
      'module 3 + to module 4 −',
      'module 4 + to inverter battery +',
    ]);
    expect(links[2]?.note).toContain('service disconnect');
    // With it open no part stands above half of 409.6 V until the end.
    expect(Math.max(...links.slice(0, 4).map((link) => link.voltageV))).toBeCloseTo(204.8, 9);
  });
});
