import type { Cable } from '../../installation/facts.ts';
import type { Installation } from '../../installation/installation.ts';
import { type Known, mapKnown } from '../../values/known.ts';
import type { CableLine } from './cableLine.ts';

/** What is left at the ends of a cable for working on them, beside the length between them, m. */
export const serviceLoopM = ({ wiring }: Installation, cable: Cable | undefined): number =>
  cable?.serviceLoopM ?? wiring?.laying?.serviceLoopM ?? 0;

/**
 * Length of one conductor of a cable, m: from end to end and what is left there. It is cut to this, and current goes through all of it. A
 * battery lead is made to its length, and a route on the wall has its loop in it already.
 */
export const conductorM = (installation: Installation, { cable, lengthM, use }: CableLine): Known<number> =>
  use === 'battery' ? lengthM : mapKnown(lengthM, (between) => between + serviceLoopM(installation, cable));
