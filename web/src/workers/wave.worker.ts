import {
  type CaptureFile,
  columnsOf,
  durationS,
  type Pyramid,
  pyramidOf,
  readCapture,
  type WaveExpectation,
  waveFigures,
  type WaveFigures,
  type WaveRecord,
} from '@bastion/core';
import { expose, transfer } from 'comlink';

/** What the page needs to know of a capture: its samples stay here. */
export interface CaptureHead {
  readonly title: string;
  readonly rateHz: number;
  readonly lengthS: number;
  readonly samples: number;
  readonly triggerS: number | undefined;
  readonly channels: readonly { readonly id: string; readonly unit: string; readonly most: number }[];
}
export type Opened =
  | { readonly ok: true; readonly head: CaptureHead; readonly figures: WaveFigures }
  | { readonly ok: false; readonly message: string };

let record: WaveRecord | undefined;
let pyramids: readonly Pyramid[] = [];

const mostOf = ({ samples, levels }: Pyramid): number => {
  let most = 0;
  for (const value of levels.at(-1) ?? samples) most = Math.max(most, Math.abs(value));
  return most;
};

const work = {
  open: (files: readonly CaptureFile[], expected: WaveExpectation): Opened => {
    const read = readCapture(files);
    if (!read.ok) return { ok: false, message: read.problems[0]?.message ?? 'It cannot be read' };
    record = read.value;
    pyramids = record.channels.map(({ samples }) => pyramidOf(samples));
    const head: CaptureHead = {
      title: record.title,
      rateHz: record.rateHz,
      lengthS: durationS(record),
      samples: record.channels[0]?.samples.length ?? 0,
      triggerS: record.triggerS,
      channels: record.channels.map(({ id, unit }, index) => {
        const pyramid = pyramids[index];
        return { id, unit, most: pyramid === undefined ? 0 : mostOf(pyramid) };
      }),
    };
    return { ok: true, head, figures: waveFigures(record, expected) };
  },

  /** Least and greatest sample of each column of a picture, channel by channel. */
  picture: (fromS: number, toS: number, columns: number): readonly Float64Array[] => {
    if (record === undefined) return [];
    const { rateHz } = record;
    const pairs = pyramids.map((one) => columnsOf(one, fromS * rateHz, toS * rateHz, columns));
    return transfer(
      pairs,
      pairs.map(({ buffer }) => buffer),
    );
  },
};
export type WaveWork = typeof work;

expose(work);
