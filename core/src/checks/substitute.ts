import { formatNumber } from '../words/quantity.ts';
import type { WorkingStep } from './finding.ts';

/** A formula with its numbers in place of its letters; `show` decides how a number is written. */
export function substitute(step: WorkingStep, show: (value: number) => string = formatNumber): string {
  const byLength = [...step.symbols].sort((a, b) => b.symbol.length - a.symbol.length);
  const pattern = new RegExp(
    byLength.map((one) => `(?<![\\p{L}_])${one.symbol}(?![\\p{L}_\\d])`).join('|'),
    'gu',
  );
  const values = new Map(byLength.map((one) => [one.symbol, one.value]));
  return step.formula.replace(pattern, (found) => {
    const value = values.get(found);
    if (value === undefined) return found;
    return value < 0 ? `(${show(value)})` : show(value);
  });
}
