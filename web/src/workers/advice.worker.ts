import { type Advice, advise, type AskedAdvice, type Design, SAMPLE_TYPES } from '@bastion/core';
import { expose } from 'comlink';

const work = {
  advise: (kind: AskedAdvice, design: Design, onProgress: (share: number) => void): Advice =>
    advise(kind, design, SAMPLE_TYPES, onProgress),
};
export type AdviceWork = typeof work;

expose(work);
