/** Curves of miniature breakers with a magnetic release. */
export type MagneticCurve = 'B' | 'C' | 'D';

/**
 * Multiples of the rated current between which a magnetic release may act: below the lower it never does, from the upper on it always
 * does (IEC 60898 bands).
 */
export const MAGNETIC_BANDS: Readonly<Record<MagneticCurve, { readonly from: number; readonly to: number }>> =
  {
    B: { from: 3, to: 5 },
    C: { from: 5, to: 10 },
    D: { from: 10, to: 20 },
  };

/** For so long a fault has to flow before a magnetic release has opened for certain, ms. */
export const MAGNETIC_MS = 20;

/** What a generator gives into a fault where its type does not say: planning values, times rated and ms. */
export const GENERATOR_FAULT = { multiple: 3, lastsMs: 300 } as const;

export const isMagnetic = (curve: string | undefined): curve is MagneticCurve =>
  curve === 'B' || curve === 'C' || curve === 'D';
