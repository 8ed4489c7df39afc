import { type Finding, sentenceOf } from '@bastion/core';
import { useOpenJob } from '../../state/job.ts';

/** The sentence of a finding of the open job. */
export const useSentence = (finding: Finding): string => sentenceOf(useOpenJob().design, finding);
