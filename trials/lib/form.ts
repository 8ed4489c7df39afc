/**
 * Trials are part of the tests in their short form; `npm run trials` runs the long one, or a part of it: BASTION_TRIALS is `long` or a
 * number from 0 to 1.
 */
const wanted = process.env.BASTION_TRIALS;
const part = wanted === 'long' ? 1 : Number(wanted ?? 0);
if (!(part >= 0 && part <= 1)) throw new Error('BASTION_TRIALS is neither `long` nor a number from 0 to 1.');

/** How often something is tried, in each form. */
export const times = ({ short, long }: { readonly short: number; readonly long: number }): number =>
  Math.max(short, Math.round(long * part));
