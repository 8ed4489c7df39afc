import { describe, expect, it } from 'vitest';
import { SAMPLE_TYPES } from '../catalogue/samples.ts';
import { readCapture } from '../formats/capture.ts';
import { writeComtradeFile } from '../formats/comtradeWrite.ts';
import { compile } from '../installation/compile.ts';
import { baseDesign, item1 } from '../testkit/designs.ts';
import { waveFigures } from '../waveform/figures.ts';
import { loadsDroppedBy } from './drops.ts';
import { transferOf } from './transfer.ts';
import { transferWave } from './transferWave.ts';

describe('a rehearsed transfer as a record', () => {
  it('reads back to the gap, the voltage and the current of the model', () => {
    const installation = compile(baseDesign(), SAMPLE_TYPES);
    const [compiled] = installation.stacks;
    const transfer = compiled && transferOf(compiled);
    if (transfer?.known !== true) throw new Error('Nothing is missing.');
    const record = transferWave(transfer.value, { title: 'Base', lineVoltageV: 230, frequencyHz: 50 });
    const read = readCapture([{ name: 'base.cff', bytes: writeComtradeFile(record, '2026-11-27') }]);
    if (!read.ok) throw new Error(read.problems[0]?.message);
    const { channels } = waveFigures(read.value, {
      nominalV: 230,
      nominalHz: 50,
      band: 0.06,
      bandHz: 0.5,
      transferMs: 10,
    });
    const figure = (channel: string, id: string): number =>
      channels.find((one) => one.channel === channel)?.figures.find((one) => one.id === id)?.value ?? NaN;
    // The type states 10 ms; the heater takes 2300 W: 10 A, 14.14 A at the peak.
    expect(figure('V L1', 'gap')).toBeCloseTo(transfer.value.gapMs, 0);
    expect(figure('V L1', 'settled')).toBeCloseTo(230, 0);
    expect(figure('V L1', 'frequency')).toBeCloseTo(50, 2);
    expect(Math.abs(figure('V L1', 'phase'))).toBeLessThan(0.5);
    expect(figure('I L1', 'peak')).toBeCloseTo(14.14, 1);
    expect(figure('I L1', 'settled')).toBeCloseTo(10, 1);
  });

  it('names the loads that a gap drops', () => {
    const design = baseDesign();
    item1(design).longestInterruptionMs = 12;
    const installation = compile(design, SAMPLE_TYPES);
    expect(loadsDroppedBy(installation, 11.9)).toEqual([]);
    expect(loadsDroppedBy(installation, 12.1)).toEqual([{ what: 'Heater i1 (Heat)', longestMs: 12 }]);
  });
});
