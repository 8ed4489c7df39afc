import type { Plant } from './plant.ts';

const PRIME = 0x01000193;
const SEED = 0x811c9dc5;

/** FNV-1a over 32-bit words: no secret, only another number for other figures. */
function mix(hash: number, word: number): number {
  return Math.imul(hash ^ word, PRIME);
}

function mixAll(hash: number, figures: Float64Array): number {
  const words = new Uint32Array(figures.buffer, figures.byteOffset, figures.length * 2);
  let now = hash;
  for (const word of words) now = mix(now, word);
  return now;
}

function mixText(hash: number, text: string): number {
  let now = hash;
  for (let at = 0; at < text.length; at += 1) now = mix(now, text.charCodeAt(at));
  return now;
}

/** A short name of all the figures that a rehearsal is played from: the same figures give the same one. */
export function plantKey(plant: Plant): string {
  const { boards, efficiencyW, efficiency, sunDcW, sunAcW, ...plain } = plant;
  let hash = mixText(SEED, JSON.stringify(plain));
  for (const { minuteW, seasonW = [], lines = [], ...board } of boards) {
    hash = mixAll(mixText(hash, JSON.stringify(board)), minuteW);
    for (const day of seasonW) hash = mixAll(hash, day);
    for (const { re, im } of lines) hash = mixAll(mixAll(hash, re), im);
  }
  for (const column of [efficiencyW, efficiency, ...sunDcW, ...sunAcW]) hash = mixAll(hash, column);
  return (hash >>> 0).toString(36);
}
