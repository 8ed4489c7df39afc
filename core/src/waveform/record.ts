/** What a channel of a capture carries, by its unit. */
export type ChannelKind = 'voltage' | 'current' | 'other';

/** One analogue channel in SI units: V, A, or as the file calls it. */
export interface WaveChannel {
  readonly id: string;
  /** L1, L2, L3, N or what the file says; empty where it says nothing. */
  readonly phase: string;
  readonly kind: ChannelKind;
  readonly unit: string;
  readonly samples: Float64Array;
}

/** A capture with samples at equal steps of time. */
export interface WaveRecord {
  readonly title: string;
  readonly rateHz: number;
  /** Frequency that the recorder was set to; undefined where it does not say. */
  readonly nominalHz: number | undefined;
  readonly channels: readonly WaveChannel[];
  readonly digital: readonly { readonly id: string; readonly states: Uint8Array }[];
  /** From the first sample to the trigger, s; undefined where the file does not say. */
  readonly triggerS: number | undefined;
  /** What somebody should know of how it was read, each a sentence. */
  readonly notes: readonly string[];
}

export const durationS = ({ rateHz, channels }: WaveRecord): number =>
  (channels[0]?.samples.length ?? 0) / rateHz;

const VOLTS: Readonly<Record<string, number>> = { v: 1, kv: 1e3, mv: 1e-3 };
const AMPERES: Readonly<Record<string, number>> = { a: 1, ka: 1e3, ma: 1e-3 };

/** What a unit is, and by how much its figures are multiplied to come to V or A. */
export function unitOf(text: string): {
  readonly kind: ChannelKind;
  readonly unit: string;
  readonly scale: number;
} {
  const key = text.trim().toLowerCase();
  if (Object.hasOwn(VOLTS, key)) return { kind: 'voltage', unit: 'V', scale: VOLTS[key] ?? 1 };
  if (Object.hasOwn(AMPERES, key)) return { kind: 'current', unit: 'A', scale: AMPERES[key] ?? 1 };
  return { kind: 'other', unit: text.trim(), scale: 1 };
}
