import { type LengthUnit, lengthUnitOf } from '@bastion/core';
import { useJob } from './job.ts';

/** How lengths are written in the open job; metres where none is open. */
export const useLengthUnit = (): LengthUnit => useJob(({ job }) => lengthUnitOf(job?.design.site ?? {}));
