import { sin } from '../values/elementary.ts';
import type { WaveChannel, WaveRecord } from '../waveform/record.ts';
import type { LinePickup, PickupStep, Transfer } from './transfer.ts';

const RATE_HZ = 10_000;
/** The grid is shown for so long before it goes, s. */
const BEFORE_S = 0.2;
/** A rehearsed transfer is written for so long at most, s. */
const LONGEST_S = 5;

interface WaveSite {
  readonly title: string;
  readonly lineVoltageV: number;
  readonly frequencyHz: number;
}

const voltageAt = (steps: readonly PickupStep[], atS: number): number =>
  steps.find(({ fromS, toS }) => atS >= fromS && atS < toS)?.voltage ?? 1;
const vaAt = ({ steps, runningVa }: LinePickup, atS: number): number =>
  steps.find(({ fromS, toS }) => atS >= fromS && atS < toS)?.va ?? runningVa;

/**
 * A rehearsed transfer as a record like one that is captured on site: voltage and current of each line, sines of the grid until it goes,
 * nothing in the gap, then sines of the inverter at the voltage and the load of each step. Nothing after a line has tripped.
 */
export function transferWave({ gapMs, lines }: Transfer, site: WaveSite): WaveRecord {
  const { lineVoltageV, frequencyHz } = site;
  const gapS = gapMs / 1000;
  const endS = Math.max(0.4, ...lines.map(({ steps }) => steps.at(-1)?.toS ?? 0));
  const count = Math.round((BEFORE_S + Math.min(LONGEST_S, endS + 0.2)) * RATE_HZ);
  const channels = lines.flatMap((pickup, index): WaveChannel[] => {
    const { line, steps, tripsAtS } = pickup;
    const turn = lines.length === 3 ? (-index * 2 * Math.PI) / 3 : index * Math.PI;
    const volts = new Float64Array(count);
    const amperes = new Float64Array(count);
    for (let at = 0; at < count; at += 1) {
      const time = at / RATE_HZ - BEFORE_S;
      const wave = Math.SQRT2 * sin(2 * Math.PI * frequencyHz * time + turn);
      const isLive = time < 0 || (time >= gapS && (tripsAtS === undefined || time < tripsAtS));
      if (!isLive) continue;
      const share = time < 0 ? 1 : voltageAt(steps, time);
      volts[at] = lineVoltageV * share * wave;
      const va = time < 0 ? pickup.runningVa : vaAt(pickup, time);
      amperes[at] = (va / lineVoltageV) * share * wave;
    }
    return [
      { id: `V ${line}`, phase: line, kind: 'voltage', unit: 'V', samples: volts },
      { id: `I ${line}`, phase: line, kind: 'current', unit: 'A', samples: amperes },
    ];
  });
  return {
    title: site.title,
    rateHz: RATE_HZ,
    nominalHz: frequencyHz,
    channels,
    digital: [],
    triggerS: BEFORE_S,
    notes: ['As rehearsed: what the model says, not what was measured.'],
  };
}
