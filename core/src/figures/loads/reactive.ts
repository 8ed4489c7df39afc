import type { Item } from '../../installation/facts.ts';

/** Reactive power at a power factor, var: Q = (P / pf) · √(1 − pf²); drawn where it lags, given back where the item says that it leads. */
export function reactiveVar(watts: number, powerFactor: number, kind: Item['powerFactorKind']): number {
  const size = (watts / powerFactor) * Math.sqrt(1 - powerFactor * powerFactor);
  return kind === 'leading' ? -size : size;
}
