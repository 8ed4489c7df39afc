/** Something that may be wrong. */
export interface Suspect {
  readonly id: string;
  readonly what: string;
  /** How often it is that, against the others. */
  readonly weight: number;
}

/** Something that can be measured, and what each outcome rules out. */
export interface Measurement {
  readonly id: string;
  readonly place: string;
  readonly what: string;
  readonly instrument: string;
  readonly expected: string;
  /** What is expected as figures, where it is read as one. */
  readonly band?: { readonly low: number; readonly high: number; readonly unit: string };
  /** Ids of suspects that it cannot be when the reading is as expected, and when it is not. */
  readonly goodRulesOut: readonly string[];
  readonly badRulesOut: readonly string[];
}

const weightOf = (suspects: readonly Suspect[]): number =>
  suspects.reduce((sum, { weight }) => sum + weight, 0);

/** Weight that is expected to be left after a measurement: Σ p(outcome) · what that outcome leaves. Whatever it leaves is what it was. */
function expectedLeft(left: readonly Suspect[], { goodRulesOut, badRulesOut }: Measurement): number {
  const whole = weightOf(left);
  const after = (out: readonly string[]): number => weightOf(left.filter(({ id }) => !out.includes(id)));
  const [good, bad] = [after(goodRulesOut), after(badRulesOut)];
  return (good * good + bad * bad) / whole;
}

/**
 * The measurement that leaves least on average; undefined where none rules anything out. Of equal ones the last in the list counts: it
 * lies at the end that is hardest to reach.
 */
export function nextOf(
  left: readonly Suspect[],
  measurements: readonly Measurement[],
): Measurement | undefined {
  const whole = weightOf(left);
  let best: { readonly one: Measurement; readonly weight: number } | undefined;
  for (const one of measurements) {
    const weight = expectedLeft(left, one);
    if (weight < whole - 1e-9 && weight <= (best?.weight ?? Infinity) + 1e-9) best = { one, weight };
  }
  return best?.one;
}
