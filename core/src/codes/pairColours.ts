/** The two open colour orders of network cable with four pairs (ISO/IEC 11801, T568A and T568B). */
export type ColourOrder = 'A' | 'B';

/** Which pair each pin of a network plug belongs to, and whether its core is the striped one. */
const PAIR_OF_PIN = ['3s', '3', '2s', '1', '1s', '2', '4s', '4'] as const;

/** Colours of pairs 1 to 4. The orders differ in which of green and orange is pair 2 and which pair 3. */
const PAIR_COLOURS: Readonly<Record<ColourOrder, readonly [string, string, string, string]>> = {
  A: ['blue', 'orange', 'green', 'brown'],
  B: ['blue', 'green', 'orange', 'brown'],
};

/** The pair of a pin of a network plug, 1 to 4; undefined for any other terminal. */
export function pairOfPin(pin: string): number | undefined {
  const place = PAIR_OF_PIN[Number(pin) - 1];
  return place === undefined ? undefined : Number(place[0]);
}

/** The core on a pin of a network plug, as "white-blue"; undefined for any other terminal. */
export function coreOfPin(order: ColourOrder, pin: string): string | undefined {
  const place = PAIR_OF_PIN[Number(pin) - 1];
  const colour = PAIR_COLOURS[order][(pairOfPin(pin) ?? 0) - 1];
  if (place === undefined || colour === undefined) return undefined;
  return place.endsWith('s') ? `white-${colour}` : colour;
}
