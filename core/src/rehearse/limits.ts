/** What a set carries for long: in all, and on each of its lines. */
export interface SetLimits {
  readonly totalW: number;
  readonly totalVa: number;
  /** Per line; nought on a line that no inverter of it feeds. */
  readonly lineVa: readonly number[];
  readonly lineW: readonly number[];
}

/** The limits of a set as it stands, and with each of its units gone. */
export interface PlantLimits extends SetLimits {
  /** Names of the lines, in their order. */
  readonly names: readonly string[];
  readonly without: readonly (SetLimits & { readonly unitId: string })[];
}
