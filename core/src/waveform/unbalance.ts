import { cos, hypot, sin } from '../values/elementary.ts';
import { fitSine, type Signal } from './cycles.ts';

/**
 * Negative over positive sequence of three voltages over some cycles from a time on, U_2 / U_1 = |U_a + a²·U_b + a·U_c| /
 * |U_a + a·U_b + a²·U_c|. Undefined where one of them cannot be fitted.
 */
export function unbalanceOf(
  signals: readonly [Signal, Signal, Signal],
  frequencyHz: number,
  fromS: number,
  cycles = 10,
): number | undefined {
  const phasors = signals.map((signal) => {
    const fit = fitSine(signal, frequencyHz, fromS, fromS + cycles / frequencyHz);
    return fit && { re: fit.amplitude * cos(fit.phase), im: fit.amplitude * sin(fit.phase) };
  });
  const [a, b, c] = phasors;
  if (a === undefined || b === undefined || c === undefined) return undefined;
  const turned = (one: { re: number; im: number }, turns: number): { re: number; im: number } => {
    const angle = (turns * 2 * Math.PI) / 3;
    return {
      re: one.re * cos(angle) - one.im * sin(angle),
      im: one.re * sin(angle) + one.im * cos(angle),
    };
  };
  const size = (turnB: number, turnC: number): number => {
    const [p, q] = [turned(b, turnB), turned(c, turnC)];
    return hypot(a.re + p.re + q.re, a.im + p.im + q.im);
  };
  const positive = size(1, 2);
  const negative = size(2, 1);
  // Which of the two is the larger depends on the order of the lines alone.
  return positive === 0 && negative === 0
    ? undefined
    : Math.min(positive, negative) / Math.max(positive, negative);
}
