/**
 * base^exponent for a base above nought, as e^(exponent · ln base).
 *
 * Engines do not agree on the last bit of `**`: a browser and a server would tell different figures of the same design. On `exp` and `log`
 * they do.
 */
export const power = (base: number, exponent: number): number => Math.exp(exponent * Math.log(base));

/** base to a whole power of nought or more, by multiplying. */
export function wholePower(base: number, exponent: number): number {
  let product = 1;
  for (let left = exponent; left > 0; left -= 1) product *= base;
  return product;
}

export const square = (value: number): number => value * value;
