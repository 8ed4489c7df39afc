/** Trials are part of the tests in their short form; `npm run trials` runs the long one. */
const isLong = process.env.BASTION_TRIALS === 'long';

/** How often something is tried, in each form. */
export const times = ({ short, long }: { readonly short: number; readonly long: number }): number =>
  isLong ? long : short;
