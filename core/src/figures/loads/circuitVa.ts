import type { Circuit, Item } from '../../installation/facts.ts';
import { remember } from '../../values/remember.ts';
import { reactiveVar } from './reactive.ts';
import { add, type Complex, magnitude, ZERO } from '../../network/complex.ts';

/** Power of an item at the expected peak, W + j·var; undefined while a figure of it is missing. */
function expectedPower({
  quantity,
  runningW,
  powerFactor,
  powerFactorKind,
  demandFactor,
}: Item): Complex | undefined {
  if (
    quantity === undefined ||
    runningW === undefined ||
    powerFactor === undefined ||
    demandFactor === undefined
  )
    return undefined;
  const watts = quantity * runningW * demandFactor;
  const vars = reactiveVar(watts, powerFactor, powerFactorKind);
  return { re: watts, im: vars };
}

/**
 * Apparent power of some items together at the expected peak, VA: S = √((ΣP)² + (ΣQ)²), added as phasors. The one figure of a
 * circuit for every screen, every advice and paper. Undefined without items, or while a figure of one is missing.
 */
export function expectedVa(items: readonly Item[]): number | undefined {
  if (items.length === 0) return undefined;
  let sum = ZERO;
  for (const item of items) {
    const power = expectedPower(item);
    if (power === undefined) return undefined;
    sum = add(sum, power);
  }
  return magnitude(sum);
}

export const circuitVa = remember(({ items }: Circuit): number | undefined => expectedVa(items));
