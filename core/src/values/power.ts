import { exp, log } from './elementary.ts';

/** base^exponent for a base above nought, as e^(exponent · ln base): the same on every engine, which `**` is not. */
export const power = (base: number, exponent: number): number => exp(exponent * log(base));

/** base to a whole power of nought or more, by multiplying. */
export function wholePower(base: number, exponent: number): number {
  let product = 1;
  for (let left = exponent; left > 0; left -= 1) product *= base;
  return product;
}

export const square = (value: number): number => value * value;
