import { cos, hypot, sin } from '../values/elementary.ts';

/** A complex number as a plain pair. Used for phasors (amperes or volts) and for apparent power (W + j·var). */
export interface Complex {
  readonly re: number;
  readonly im: number;
}

export const ZERO: Complex = { re: 0, im: 0 };
export const complex = (re: number, im: number): Complex => ({ re, im });
export const polar = (size: number, degrees: number): Complex => {
  const angle = (degrees * Math.PI) / 180;
  return { re: size * cos(angle), im: size * sin(angle) };
};
export const add = (a: Complex, b: Complex): Complex => ({ re: a.re + b.re, im: a.im + b.im });
export const subtract = (a: Complex, b: Complex): Complex => ({ re: a.re - b.re, im: a.im - b.im });
export const scale = (a: Complex, factor: number): Complex => ({ re: a.re * factor, im: a.im * factor });
export const multiply = (a: Complex, b: Complex): Complex => ({
  re: a.re * b.re - a.im * b.im,
  im: a.re * b.im + a.im * b.re,
});
export const conjugate = (a: Complex): Complex => ({ re: a.re, im: -a.im });
export const divide = (a: Complex, b: Complex): Complex => {
  const size = b.re * b.re + b.im * b.im;
  return { re: (a.re * b.re + a.im * b.im) / size, im: (a.im * b.re - a.re * b.im) / size };
};
export const magnitude = (a: Complex): number => hypot(a.re, a.im);
