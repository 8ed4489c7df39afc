/**
 * Elementary functions out of +, −, ·, / and √ alone, which every engine rounds alike. Those of `Math` are left to each engine: browser,
 * server and command line come to other last bits with them, and a rehearsal that was kept in one would not be known again in the other.
 * Each is within two units in the last place of the true value over the ranges that are named, angles within eight.
 */

/** π/2 and ln 2, each as a part of 33 bits, which whole numbers below 2^20 multiply exactly, and the rest. */
const HALF_PI_HIGH = 1.5707963267341256;
const HALF_PI_LOW = 6.077100506506192e-11;
const LN2_HIGH = 0.6931471803691238;
const LN2_LOW = 1.9082149292705877e-10;

/** e^x is nought below, and beyond all bounds above. */
const LEAST_EXPONENT = -745.2;
const MOST_EXPONENT = 709.79;
const BIAS = 1023;
const EXPONENT_BITS = 0x7ff00000;

/** One double seen as its two halves; big-endian on every machine. */
const bits = new DataView(new ArrayBuffer(8));

/** 2 to a whole power from −1022 to 1023. */
function powerOfTwo(exponent: number): number {
  bits.setUint32(0, (exponent + BIAS) << 20);
  bits.setUint32(4, 0);
  return bits.getFloat64(0);
}

/** x − x³/3! + x⁵/5! …, for |x| up to π/4. */
function sinNear(x: number): number {
  const square = x * x;
  let sum = 0;
  for (let n = 17; n >= 3; n -= 2) sum = (-square / (n * (n - 1))) * (1 + sum);
  return x + x * sum;
}

/** 1 − x²/2! + x⁴/4! …, for |x| up to π/4. */
function cosNear(x: number): number {
  const square = x * x;
  let sum = 0;
  for (let n = 18; n >= 2; n -= 2) sum = (-square / (n * (n - 1))) * (1 + sum);
  return 1 + sum;
}

/** sin(x + quarters · π/2) by the nearest quarter turn. */
function sinOf(x: number, quarters: number): number {
  const turns = Math.round(x / (Math.PI / 2));
  const rest = x - turns * HALF_PI_HIGH - turns * HALF_PI_LOW;
  const quarter = (((turns + quarters) % 4) + 4) % 4;
  const value = quarter % 2 === 0 ? sinNear(rest) : cosNear(rest);
  return quarter < 2 ? value : -value;
}

/** Sine, x in radians up to a million either way. */
export const sin = (x: number): number => sinOf(x, 0);

/** Cosine, likewise. */
export const cos = (x: number): number => sinOf(x, 1);

/** e^x. */
export function exp(x: number): number {
  if (Number.isNaN(x)) return NaN;
  if (x < LEAST_EXPONENT) return 0;
  if (x > MOST_EXPONENT) return Infinity;
  const doublings = Math.round(x / Math.LN2);
  const rest = x - doublings * LN2_HIGH - doublings * LN2_LOW;
  let sum = 1;
  for (let n = 15; n >= 1; n -= 1) sum = 1 + (rest / n) * sum;
  // In two steps, since the whole power may lie beyond what a double holds.
  const half = Math.trunc(doublings / 2);
  return sum * powerOfTwo(half) * powerOfTwo(doublings - half);
}

/** Natural logarithm: −∞ at nought, NaN below. */
export function log(x: number): number {
  if (!(x > 0)) return x === 0 ? -Infinity : NaN;
  if (x === Infinity) return Infinity;
  // Numbers too small for an exponent of their own are taken 2^54 times as large.
  if (x < 2.2250738585072014e-308) return log(x * 18014398509481984) - 54 * LN2_HIGH - 54 * LN2_LOW;
  bits.setFloat64(0, x);
  const high = bits.getUint32(0);
  let exponent = ((high & EXPONENT_BITS) >>> 20) - BIAS;
  bits.setUint32(0, (high & ~EXPONENT_BITS) | (BIAS << 20));
  let mantissa = bits.getFloat64(0);
  if (mantissa > Math.SQRT2) {
    mantissa /= 2;
    exponent += 1;
  }
  // ln m = 2 · (f + f³/3 + f⁵/5 …) with f = (m − 1) / (m + 1), |f| up to 0.172.
  const f = (mantissa - 1) / (mantissa + 1);
  const square = f * f;
  let sum = 0;
  for (let n = 23; n >= 3; n -= 2) sum = square * (1 / n + sum);
  return exponent * LN2_HIGH + (2 * f + (2 * f * sum + exponent * LN2_LOW));
}

/** Arc tangent of t from nought to one. */
function atanNear(t: number): number {
  // Halved twice: t is 0.199 at most in the series.
  const half = (x: number): number => x / (1 + Math.sqrt(1 + x * x));
  const u = half(half(t));
  const square = u * u;
  let sum = 0;
  for (let n = 25; n >= 3; n -= 2) sum = -square * (1 / n + sum);
  return 4 * (u + u * sum);
}

/** Angle of the point (x, y), −π to π; nought at the origin. */
export function atan2(y: number, x: number): number {
  const [across, up] = [Math.abs(x), Math.abs(y)];
  if (across === 0 && up === 0) return 0;
  const acute = up <= across ? atanNear(up / across) : Math.PI / 2 - atanNear(across / up);
  const ofHalf = x < 0 ? Math.PI - acute : acute;
  return y < 0 ? -ofHalf : ofHalf;
}

/** Arc sine of −1 to 1. */
export const asin = (x: number): number => atan2(x, Math.sqrt((1 - x) * (1 + x)));

/** Logarithm to ten; of whole powers of ten it is whole. */
export function log10(x: number): number {
  const value = log(x) / Math.LN10;
  const whole = Math.round(value);
  return Math.abs(value - whole) < 1e-14 ? whole : value;
}

/** Length of a vector; of figures whose squares a double holds. */
export const hypot = (a: number, b: number): number => Math.sqrt(a * a + b * b);
