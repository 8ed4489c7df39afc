import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { analyse } from '../checks/analyse.ts';
import { compile } from '../installation/compile.ts';
import type { Design } from '../design/schema.ts';
import { addLoad, baseDesign } from '../testkit/designs.ts';
import { batteryInStart } from './startBattery.ts';
import { startersOf } from './motorStart.ts';

const design: Design = baseDesign();
addLoad(design, 'c2', ['L1'], {
  name: 'Compressor',
  runningW: 600,
  powerFactor: 0.75,
  startClass: 'compressor',
});
addLoad(design, 'c3', ['L1'], { name: 'Pump', runningW: 400, powerFactor: 0.7, startClass: 'deep-pump' });
addLoad(design, 'c4', ['L1'], { name: 'Lamps', runningW: 200, startClass: 'electronic' });
const installation = compile(design, SAMPLE_TYPES);
const [compiled] = installation.stacks;
if (compiled === undefined) throw new Error('The design has a set.');
const starters = startersOf(compiled);
const keys = starters.known ? starters.value : [];

const amperes = (key: string): number | undefined =>
  batteryInStart(installation, compiled.stack.id, key).find(({ check }) => check === 'bank.surge-current')
    ?.value;

describe('the battery in a chosen start', () => {
  it('is the limits\u2019 own figure where the start is the largest, and less for every other', () => {
    const limit = analyse(design, SAMPLE_TYPES).findings.find(
      ({ check, mode }) => check === 'bank.surge-current' && mode === 'island',
    );
    const all = keys.map(({ key }) => amperes(key) ?? NaN);
    expect(keys.length).toBe(2);
    expect(Math.max(...all)).toBe(limit?.value);
    expect(all.filter((one) => one < (limit?.value ?? 0)).length).toBeGreaterThan(0);
  });

  it('names the item that starts, and nothing else', () => {
    for (const { key, label } of keys)
      for (const { check, data } of batteryInStart(installation, compiled.stack.id, key))
        if (check === 'bank.surge-current' || check === 'bank.sag') expect(data.label).toBe(label);
  });
});
