/**
 * The conductances of a network by the places that they join, resistors first, then sources. Place 0 is the reference and takes no
 * part in the matrix; nodes joined by a resistance of nought are one place. What has no conductance stands as 0.
 */
export interface Conductances {
  readonly places: number;
  readonly from: Int32Array;
  readonly to: Int32Array;
  readonly siemens: Float64Array;
}

/** The matrix of a network's conductances, factored as L · D · Lᵀ. */
export interface Factored {
  /** Place whose pivot vanishes beside the size of the matrix, because it hangs in the air; 0 where none does. */
  readonly vanished: number;
  /** Solves matrix · x = b in place; x is by place, that of the reference is left as it is. */
  readonly substitute: (x: Float64Array) => void;
}

/** A pivot this small beside the largest conductance means that a part of the network hangs in the air. */
export const SINGULAR = 1e-12;

/** How far apart two places that are joined lie at most, the reference aside. */
export function reachOf({ from, to, siemens }: Conductances): number {
  let reach = 0;
  for (let at = 0; at < siemens.length; at += 1) {
    const a = from[at] ?? 0;
    const b = to[at] ?? 0;
    if (a > 0 && b > 0) reach = Math.max(reach, Math.abs(a - b));
  }
  return reach;
}
