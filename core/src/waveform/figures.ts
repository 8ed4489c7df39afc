import { measureCurrent } from './currentMeasure.ts';
import { harmonicsOf } from './harmonics.ts';
import type { WaveRecord } from './record.ts';
import { measureTransfer, type TransferMeasure, type VoltageExpectation } from './transferMeasure.ts';
import { unbalanceOf } from './unbalance.ts';

/** One figure of a capture, in the unit in which people read it. */
export interface WaveFigure {
  readonly id: string;
  readonly label: string;
  readonly value: number | undefined;
  readonly unit: string;
  /** What it must not lie outside of, where the job or the type says so. */
  readonly low?: number;
  readonly high?: number;
}

export interface ChannelFigures {
  readonly channel: string;
  readonly figures: readonly WaveFigure[];
  /** Where the trouble lies, for the picture, s. */
  readonly gap?: { readonly fromS: number; readonly toS: number };
}

export interface WaveFigures {
  readonly channels: readonly ChannelFigures[];
  readonly notes: readonly string[];
}

/** What a capture is held against. */
export interface WaveExpectation extends VoltageExpectation {
  /** Longest gap that the type or the transfer device states, ms. */
  readonly transferMs: number | undefined;
  /** How far the frequency may lie from nominal, Hz. */
  readonly bandHz: number;
}

/** A voltage below this share of nominal is a small signal, not the mains. */
const IS_MAINS = 0.2;
/** Harmonics are taken a cycle after the trouble. */
const SETTLE_CYCLES = 5;

function voltageFigures(found: TransferMeasure, expected: WaveExpectation): WaveFigure[] {
  const { nominalV, nominalHz, band, transferMs, bandHz } = expected;
  const { gap, dip } = found;
  const ms = (seconds: number | undefined): number | undefined => seconds && seconds * 1000;
  return [
    {
      id: 'gap',
      label: 'Gap without voltage',
      value: gap === undefined ? 0 : (gap.toS - gap.fromS) * 1000,
      unit: 'ms',
      ...(transferMs === undefined ? {} : { high: transferMs }),
    },
    { id: 'dip', label: 'Lowest half-cycle RMS', value: dip?.lowestV, unit: 'V' },
    { id: 'dip-length', label: 'Below 90 % for', value: ms(dip?.lengthS) ?? 0, unit: 'ms' },
    { id: 'low', label: 'Gone or below 70 % for', value: found.lowS * 1000, unit: 'ms' },
    { id: 'peak', label: 'Highest peak', value: found.highestV, unit: 'V' },
    {
      id: 'overshoot',
      label: 'Overshoot over the nominal peak',
      value: found.overshoot && found.overshoot * 100,
      unit: '%',
    },
    { id: 'back', label: `Back within ${band * 100} % after`, value: ms(found.backInBandS), unit: 'ms' },
    {
      id: 'settled',
      label: 'Last half-cycle RMS',
      value: found.rms.at(-1)?.rms,
      unit: 'V',
      low: nominalV * (1 - band),
      high: nominalV * (1 + band),
    },
    {
      id: 'frequency',
      label: 'Frequency after it',
      value: found.frequencyHz,
      unit: 'Hz',
      low: nominalHz - bandHz,
      high: nominalHz + bandHz,
    },
    { id: 'furthest', label: 'Cycle furthest from nominal', value: found.furthestHz, unit: 'Hz' },
    { id: 'slope', label: 'Steepest slope of frequency', value: found.slopeHzPerS, unit: 'Hz/s' },
    { id: 'phase', label: 'Phase jump', value: found.phaseJumpDeg, unit: '°' },
  ];
}

/** Measures every channel of a capture: voltages over the transfer, currents over the start, three voltages against each other. */
export function waveFigures(record: WaveRecord, expected: WaveExpectation): WaveFigures {
  const { rateHz } = record;
  const signals = record.channels.map((channel) => ({
    channel,
    signal: { samples: channel.samples, rateHz },
  }));
  const notes = [...record.notes];
  if (rateHz < 40 * expected.nominalHz)
    notes.push(
      `Only ${Math.round(rateHz / expected.nominalHz)} samples in a cycle: times are no better than ${(1000 / rateHz).toPrecision(2)} ms.`,
    );
  const voltages = signals
    .filter(({ channel }) => channel.kind === 'voltage')
    .map(({ channel, signal }) => ({ channel, signal, found: measureTransfer(signal, expected) }))
    .filter(({ found }) => found.highestV > IS_MAINS * expected.nominalV || found.gap !== undefined);
  const afterS = (found: TransferMeasure): number =>
    (found.gap?.toS ?? (found.dip === undefined ? 0 : found.dip.fromS + found.dip.lengthS)) +
    SETTLE_CYCLES / expected.nominalHz;
  for (const { channel, found } of voltages)
    if (found.gap !== undefined && found.frequencyHz === undefined)
      notes.push(`${channel.id}: the voltage does not come back before the capture ends.`);
  const channels: ChannelFigures[] = voltages.map(({ channel, signal, found }) => {
    const harmonics = harmonicsOf(signal, found.frequencyHz ?? expected.nominalHz, afterS(found));
    return {
      channel: channel.id,
      ...(found.gap === undefined ? {} : { gap: found.gap }),
      figures: [
        ...voltageFigures(found, expected),
        {
          id: 'distortion',
          label: 'Distortion to the 40th harmonic',
          value: harmonics && harmonics.distortion * 100,
          unit: '%',
        },
        ...(harmonics?.shares ?? [])
          .filter(({ share }) => share >= 0.005)
          .map(({ order, share }) => ({
            id: `h${order}`,
            label: `Harmonic ${order}`,
            value: share * 100,
            unit: '%',
          })),
      ],
    };
  });
  const [a, b, c] = voltages;
  if (a !== undefined && b !== undefined && c !== undefined && voltages.length === 3) {
    const startS = Math.max(afterS(a.found), afterS(b.found), afterS(c.found));
    const hz = a.found.frequencyHz ?? expected.nominalHz;
    const share = unbalanceOf([a.signal, b.signal, c.signal], hz, startS);
    channels.push({
      channel: 'all three voltages',
      figures: [{ id: 'unbalance', label: 'Unbalance', value: share && share * 100, unit: '%' }],
    });
  }
  for (const { channel, signal } of signals) {
    if (channel.kind !== 'current') continue;
    const found = measureCurrent(signal, expected.nominalHz);
    if (found === undefined) continue;
    channels.push({
      channel: channel.id,
      figures: [
        { id: 'peak', label: 'Peak', value: found.peakA, unit: 'A' },
        { id: 'highest', label: 'Highest half-cycle RMS', value: found.highestRmsA, unit: 'A' },
        { id: 'settled', label: 'Settles at', value: found.settledRmsA, unit: 'A' },
        { id: 'inrush', label: 'Above 1.1 times that for', value: found.inrushS * 1000, unit: 'ms' },
        { id: 'charge', label: 'Charge', value: found.chargeAs, unit: 'As' },
        { id: 'i2t', label: 'I²t', value: found.i2tA2s, unit: 'A²s' },
      ],
    });
  }
  return { channels, notes };
}

/** Whether a figure lies in its band; undefined where it has none, or was not found. */
export function isInBand({ value, low, high }: WaveFigure): boolean | undefined {
  if (value === undefined || (low === undefined && high === undefined)) return undefined;
  return value >= (low ?? -Infinity) && value <= (high ?? Infinity);
}
